package jollycrate.step;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.net.URI;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Front;
import jollycrate.host.Access;
import jollycrate.host.Identity;
import jollycrate.json.MayLack;
import jollycrate.script.Stage;
import jollycrate.server.Expected;
import jollycrate.server.Part;
import jollycrate.server.Placement;

/** One reversible change, as a value that the journal keeps. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "step")
@JsonSubTypes({
  @JsonSubTypes.Type(value = Step.MakeFolder.class, name = "make folder"),
  @JsonSubTypes.Type(value = Step.PutFile.class, name = "put file"),
  @JsonSubTypes.Type(value = Step.RemoveFile.class, name = "remove file"),
  @JsonSubTypes.Type(value = Step.RemoveFolder.class, name = "remove folder"),
  @JsonSubTypes.Type(value = Step.ClearTrace.class, name = "clear trace"),
  @JsonSubTypes.Type(value = Step.StopServer.class, name = "stop server"),
  @JsonSubTypes.Type(value = Step.ApplyScript.class, name = "apply script"),
  @JsonSubTypes.Type(value = Step.StartServer.class, name = "start server"),
  @JsonSubTypes.Type(value = Step.HoldFront.class, name = "hold front"),
  @JsonSubTypes.Type(value = Step.ReloadFront.class, name = "reload front"),
  @JsonSubTypes.Type(value = Step.Await.class, name = "await"),
  @JsonSubTypes.Type(value = Step.AwaitPorts.class, name = "await ports"),
  @JsonSubTypes.Type(value = Step.AwaitRead.class, name = "await read"),
  @JsonSubTypes.Type(value = Step.CheckCertificate.class, name = "check certificate"),
  @JsonSubTypes.Type(value = Step.RunChecks.class, name = "run checks")
})
public sealed interface Step {

  /** Whether it changes what the server serves, so that everything logged before it is old. */
  default boolean moves() {
    return false;
  }

  /** The change of a file, if it is one. */
  default Optional<FileChange> file() {
    return Optional.empty();
  }

  /** What the visitor says of this step. */
  <T> T accept(Visitor<T> visitor);

  /**
   * What is to be done or said for each kind of step; nothing may be forgotten.
   *
   * @param <T> what comes of it
   */
  interface Visitor<T> {
    T makeFolder(MakeFolder step);

    T putFile(PutFile step);

    T removeFile(RemoveFile step);

    T removeFolder(RemoveFolder step);

    T clearTrace(ClearTrace step);

    T stopServer(StopServer step);

    T applyScript(ApplyScript step);

    T startServer(StartServer step);

    T holdFront(HoldFront step);

    T reloadFront(ReloadFront step);

    T await(Await step);

    T awaitPorts(AwaitPorts step);

    T awaitRead(AwaitRead step);

    T checkCertificate(CheckCertificate step);

    T runChecks(RunChecks step);
  }

  /**
   * A file or a folder that a step makes, changes or removes.
   *
   * @param before empty when nothing stands there before the step
   * @param after empty when nothing stands there after it
   */
  record FileChange(Path path, Optional<State> before, Optional<State> after) {}

  /** Makes a folder. */
  record MakeFolder(Path path, Access access) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.makeFolder(this);
    }
  }

  /**
   * Puts a file.
   *
   * @param before null when nothing stood there
   */
  record PutFile(Path path, State before, State after, Part part) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.putFile(this);
    }

    @Override
    public Optional<FileChange> file() {
      return Optional.of(new FileChange(path, Optional.ofNullable(before), Optional.of(after)));
    }

    @Override
    public boolean moves() {
      return part != Part.SUPPORT;
    }
  }

  /** Removes a file. */
  record RemoveFile(Path path, State before, Part part) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.removeFile(this);
    }

    @Override
    public Optional<FileChange> file() {
      return Optional.of(new FileChange(path, Optional.of(before), Optional.empty()));
    }

    @Override
    public boolean moves() {
      return part != Part.SUPPORT;
    }
  }

  /** Removes a folder of ours if it is empty. */
  record RemoveFolder(Path path, Access before) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.removeFolder(this);
    }
  }

  /** Deletes what a stopped server left of a placement; a started one makes it anew. */
  record ClearTrace(Path path) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.clearTrace(this);
    }
  }

  /**
   * Stops the server.
   *
   * @param fingerprint of its launch
   * @param command of its launch, to start it so again
   * @param ports of those described that it listened on
   */
  record StopServer(
      Identity process, String fingerprint, List<String> command, @MayLack List<Integer> ports)
      implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.stopServer(this);
    }

    @Override
    public boolean moves() {
      return true;
    }
  }

  /**
   * Applies a script to the database behind a data source.
   *
   * @param source JNDI name of the data source
   * @param digest of what it does
   * @param noted how far it came before, as its database says
   * @param counts whether it only counts as applied from now on
   * @param undone whether something undoes it when this is taken back
   */
  record ApplyScript(
      String script, String source, String digest, Stage noted, boolean counts, boolean undone)
      implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.applyScript(this);
    }
  }

  /** Starts the server. */
  record StartServer() implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.startServer(this);
    }

    @Override
    public boolean moves() {
      return true;
    }
  }

  /**
   * Stands before the switch of a front and does nothing. When it is undone, the switch is as it
   * was: then the front reads it again, and requests that are under way end before anything else is
   * taken back.
   */
  record HoldFront(Front front, Placement placement) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.holdFront(this);
    }
  }

  /** Makes a front read its configuration, after the front itself has checked that. */
  record ReloadFront(Front front) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.reloadFront(this);
    }
  }

  /** Waits for a fact about a placement. */
  record Await(Placement placement, Expected expected) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.await(this);
    }
  }

  /** Waits until the server listens on its ports. */
  record AwaitPorts(List<Integer> ports) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.awaitPorts(this);
    }
  }

  /** Waits until the running server has read a file of its own anew. */
  record AwaitRead(Path path) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.awaitRead(this);
    }
  }

  /**
   * Looks whether the server shows the certificate that it is to show.
   *
   * @param expected as {@code servers.toml} writes it
   */
  record CheckCertificate(URI url, String expected) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.checkCertificate(this);
    }
  }

  /** Runs the checks of the application against a placement. */
  record RunChecks(Placement placement) implements Step {
    @Override
    public <T> T accept(Visitor<T> visitor) {
      return visitor.runChecks(this);
    }
  }
}

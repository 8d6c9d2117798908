package jollycrate.journal;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import jollycrate.host.Identity;
import jollycrate.json.MayLack;
import jollycrate.server.Placement;
import jollycrate.server.Swap;
import jollycrate.step.Step;

/** One line of a journal: written and synced before the change it tells of. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "line")
@JsonSubTypes({
  @JsonSubTypes.Type(value = JournalLine.Opened.class, name = "opened"),
  @JsonSubTypes.Type(value = JournalLine.Doing.class, name = "doing"),
  @JsonSubTypes.Type(value = JournalLine.Done.class, name = "done"),
  @JsonSubTypes.Type(value = JournalLine.Proven.class, name = "proven"),
  @JsonSubTypes.Type(value = JournalLine.Undoing.class, name = "undoing"),
  @JsonSubTypes.Type(value = JournalLine.Undone.class, name = "undone"),
  @JsonSubTypes.Type(value = JournalLine.Ended.class, name = "ended"),
  @JsonSubTypes.Type(value = JournalLine.Torn.class, name = "torn")
})
public sealed interface JournalLine {
  /** The format that these lines have. */
  int FORMAT = 1;

  /**
   * A delivery begins.
   *
   * @param format of this journal
   * @param act deploy, undeploy, rollback, or how the server itself is changed
   * @param application empty when the server itself is changed
   * @param description digest of the resolved description, empty for an undeploy
   * @param revision of the source of the artifact, as far as it is known
   * @param restores number of the delivery whose release comes back; 0 for a new one
   * @param placement that is to stand; null for an undeploy, and for a change of the server
   * @param earlier placement that stood; null for a first deploy, and for a change of the server
   * @param ailed why that one did not run although its server did; empty when nothing spoke against
   *     it
   * @param stood what the server had made for that one itself, like its unpacked archive
   * @param others further placements that were up, where a change of the server concerns them
   * @param serverRan whether the server ran
   */
  record Opened(
      int format,
      int delivery,
      String act,
      String application,
      Instant at,
      String by,
      Identity holder,
      String description,
      @MayLack String revision,
      @MayLack int restores,
      Swap swap,
      Placement placement,
      Placement earlier,
      @MayLack String ailed,
      @MayLack List<Path> stood,
      @MayLack List<Placement> others,
      boolean serverRan)
      implements JournalLine {

    /** What was done, as people say it. */
    public String told() {
      return application.isEmpty()
          ? act + " of the server itself"
          : act + " of '" + application + "'";
    }
  }

  /**
   * A step is about to be done.
   *
   * @param mark where the server's log ended, when the step moves the server; else -1
   */
  record Doing(int number, Step step, long mark, Instant at) implements JournalLine {}

  /** A step was done. */
  record Done(int number) implements JournalLine {}

  /**
   * The new state is proven: from here on the delivery is finished, not taken back.
   *
   * @param tidy steps that are left
   */
  record Proven(List<Step> tidy) implements JournalLine {}

  /**
   * A step is about to be undone; 0 stands for bringing the earlier state up again, -1 for
   * restarting the server to that end.
   *
   * @param mark where the server's log ended
   */
  record Undoing(int number, long mark) implements JournalLine {}

  /** A step was undone. */
  record Undone(int number) implements JournalLine {}

  /** The delivery ended. */
  record Ended(Outcome outcome) implements JournalLine {}

  /** The line before this one was cut off while it was written, and counts as not written. */
  record Torn() implements JournalLine {}

  /** How a delivery ended. */
  enum Outcome {
    KEPT,
    TAKEN_BACK
  }
}

package jollycrate.trial;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Predicate;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ProblemsException;
import jollycrate.artifact.ArtifactReader;
import jollycrate.build.BuildException;
import jollycrate.build.BuildMode;
import jollycrate.build.Packing;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryService;
import jollycrate.delivery.ServerService;
import jollycrate.host.Time;
import jollycrate.pack.PackException;
import jollycrate.pack.Shape;
import jollycrate.pack.Unfolding;
import jollycrate.secret.SecretException;
import jollycrate.server.Unfolded;
import jollycrate.watch.Interrupts;
import jollycrate.watch.LogEntry;
import jollycrate.watch.LogLevel;
import jollycrate.watch.Progress;
import jollycrate.watch.ServerLogReader;

/**
 * Runs an application from its build output, unpacked, and follows every change of it until it is
 * interrupted; then nothing is left.
 */
public final class LiveRun {
  /** The scratch server's name, under which per-server values may stand in {@code [for.run]}. */
  static final String NAME = "run";

  private static final Duration LOOK_AGAIN = Duration.ofMillis(250);

  /** Told of what happens, besides what a delivery tells. */
  public interface Watch extends Progress {
    /** The unpacked application stands in that folder and is delivered now. */
    default void running(Path folder) {}

    /** These paths inside the application changed. */
    default void changed(List<String> paths) {}

    /** What was delivered, or why it was not; the run goes on. */
    default void ended(DeliveryOutcome outcome) {}

    /** What changed cannot be built, packed or read; the run goes on with what ran before. */
    default void failed(RuntimeException reason) {}

    /** The application printed something. */
    default void printed(LogEntry entry) {}
  }

  private final Function<Optional<String>, Packing.Chosen> source;
  private final Watch watch;
  private final Interrupts interrupts;
  private final Time time = Time.system();
  private String told = "";
  private long delivered;

  LiveRun(Function<Optional<String>, Packing.Chosen> source, Watch watch, Interrupts interrupts) {
    this.source = source;
    this.watch = watch;
    this.interrupts = interrupts;
  }

  /** Whether a shape is run on a practice server; the others run as a service. */
  static boolean onServer(Shape shape) {
    return shape.isWar();
  }

  /**
   * Runs until it is interrupted.
   *
   * @param pack name of what is run, empty for what is delivered
   */
  void follow(Optional<String> pack, Scratch scratch, DeliveryService deliveries, Path folder) {
    Unfoldings unfoldings = new Unfoldings(folder);
    ServerLogReader log =
        new ServerService(scratch.site(), Progress.NONE, interrupts)
            .log(watch::printed, LogLevel.NONE, Optional.empty())
            .nearTheEnd();
    watch.running(folder);
    long seen = 0;
    while (!interrupts.isAsked()) {
      Optional<Packing.Chosen> chosen = chosen(pack);
      long now = chosen.map(Packing.Chosen::inputs).map(LiveRun::look).orElse(seen);
      if (chosen.isPresent() && now != delivered && (now == seen || delivered == 0)) {
        if (!round(chosen.get(), unfoldings, deliveries, folder)) {
          log.skip();
        }
        now = delivered;
      }
      seen = now;
      log.read();
      time.pause(LOOK_AGAIN);
    }
  }

  /** Empty while a file that describes it is wrong, which is told once. */
  private Optional<Packing.Chosen> chosen(Optional<String> pack) {
    try {
      Packing.Chosen chosen = source.apply(pack);
      told = "";
      return Optional.of(chosen);
    } catch (ProblemsException | NotDescribedException e) {
      if (!e.getMessage().equals(told)) {
        watch.failed(e);
      }
      told = e.getMessage();
      return Optional.empty();
    }
  }

  /**
   * Two folders in turn: while a new content starts from one, the content before it stays in the
   * other. What needs no new start changes in its place.
   */
  private static final class Unfoldings {
    private Unfolding now;
    private Unfolding other;

    Unfoldings(Path folder) {
      now = new Unfolding(folder.resolve("unpacked-1"));
      other = new Unfolding(folder.resolve("unpacked-2"));
    }

    List<String> follow(Path archive, Predicate<String> startsAnew) throws IOException {
      List<String> changed = now.changesTo(archive);
      if (changed.stream().anyMatch(startsAnew)) {
        Unfolding before = now;
        now = other;
        other = before;
      }
      now.follow(archive);
      return changed;
    }

    /** The other one goes on running. */
    void takenBack() {
      Unfolding failed = now;
      now = other;
      other = failed;
    }
  }

  /**
   * Builds until nothing is to be built, so that what is seen then is what is packed; what changes
   * from there on is another change.
   */
  private void build(Packing.Chosen chosen) {
    long before;
    do {
      before = look(chosen.inputs());
      delivered = before;
      try {
        chosen.packing().built(BuildMode.WHEN_STALE);
      } catch (BuildException e) {
        delivered = look(chosen.inputs());
        throw e;
      }
    } while (look(chosen.inputs()) != before);
  }

  /** Whether it came up; if not, what the log tells of it was told already. */
  private boolean round(
      Packing.Chosen chosen, Unfoldings unfoldings, DeliveryService deliveries, Path folder) {
    boolean server = onServer(chosen.description().shape());
    Predicate<String> startsAnew =
        name -> !server || name.startsWith("WEB-INF/") || name.startsWith("META-INF/");
    try {
      Path archive = folder.resolve("packed." + chosen.description().shape().ending());
      build(chosen);
      watch.packed(chosen.packing().pack(chosen.description(), archive));
      watch.changed(unfoldings.follow(archive, startsAnew));
      Unfolding now = unfoldings.now;
      DeliveryOutcome outcome =
          deliveries.deployUnfolded(
              chosen.application(),
              ArtifactReader.read(archive),
              new Unfolded(now.folder(), now.stamp(startsAnew)));
      watch.ended(outcome);
      if (outcome.result() == DeliveryOutcome.Result.TAKEN_BACK) {
        unfoldings.takenBack();
        return false;
      }
    } catch (BuildException | PackException | ProblemsException | SecretException e) {
      watch.failed(e);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return true;
  }

  /** A number that is another one whenever a file came, went or was written. */
  private static long look(List<Path> inputs) {
    long[] sum = {1};
    for (Path input : inputs) {
      try {
        Files.walkFileTree(
            input,
            new SimpleFileVisitor<>() {
              @Override
              public FileVisitResult visitFile(Path file, BasicFileAttributes facts) {
                long stamp = facts.lastModifiedTime().toMillis() * 31 + facts.size();
                sum[0] += stamp * 31 + file.hashCode();
                return FileVisitResult.CONTINUE;
              }

              @Override
              public FileVisitResult visitFileFailed(Path file, IOException e) {
                return FileVisitResult.CONTINUE;
              }
            });
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    return sum[0];
  }
}

package jollycrate.trial;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.app.Application;
import jollycrate.app.NotDescribedException;
import jollycrate.app.PackDescription;
import jollycrate.app.ProblemsException;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactReader;
import jollycrate.build.Packing;
import jollycrate.check.CheckResult;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.DeliveryService;
import jollycrate.delivery.Manner;
import jollycrate.delivery.Source;
import jollycrate.foresee.Finding;
import jollycrate.host.Time;
import jollycrate.pack.PackException;
import jollycrate.pack.Shape;
import jollycrate.pack.Unfolding;
import jollycrate.server.Server;
import jollycrate.server.Unfolded;
import jollycrate.step.Step;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** Delivers one application in several shapes, each to a scratch place, and measures it there. */
final class ShapesTrial {
  /** The scratch servers' name, under which per-server values may stand in {@code [for.shapes]}. */
  static final String NAME = "shapes";

  /** Everything that differs between two shapes. */
  private record Trial(String label, Optional<PackDescription> pack, boolean unfolded) {}

  private final Application application;
  private final Packing packing;
  private final BiFunction<Boolean, Path, Scratch> scratches;
  private final BiFunction<Site, Progress, DeliveryService> deliveries;
  private final Time time = Time.system();

  /**
   * @param scratches makes a server for a program, or else a practice server, in a folder
   */
  ShapesTrial(
      Application application,
      Packing packing,
      BiFunction<Boolean, Path, Scratch> scratches,
      BiFunction<Site, Progress, DeliveryService> deliveries) {
    this.application = application;
    this.packing = packing;
    this.scratches = scratches;
    this.deliveries = deliveries;
  }

  /** Tries all of them, whatever the first ones say; each is told of when it is done. */
  List<ShapeRow> rows(Path folder, Progress progress, Consumer<ShapeRow> done) {
    List<ShapeRow> rows = new ArrayList<>();
    for (Trial trial : trials()) {
      ShapeRow row = row(trial, folder.resolve("shape-" + (rows.size() + 1)), progress);
      rows.add(row);
      done.accept(row);
    }
    return List.copyOf(rows);
  }

  private List<Trial> trials() {
    Optional<PackDescription> war = pack(Shape.WAR, Shape.EXECUTABLE_WAR);
    Optional<PackDescription> jar = pack(Shape.MERGED_JAR, Shape.JAR_AND_LIBS);
    return List.of(
        new Trial("from build output", war.or(() -> jar), true),
        new Trial("executable JAR", jar, false),
        new Trial("executable WAR", pack(Shape.EXECUTABLE_WAR, Shape.WAR), false),
        new Trial("plain WAR", war, false));
  }

  /** What is described in a shape, else what is described in a kindred one, turned into it. */
  private Optional<PackDescription> pack(Shape shape, Shape kindred) {
    return Stream.of(shape, kindred)
        .flatMap(
            wanted -> application.making().packs().stream().filter(pack -> pack.shape() == wanted))
        .findFirst()
        .map(pack -> pack.in(shape));
  }

  private ShapeRow row(Trial trial, Path folder, Progress progress) {
    if (trial.pack().isEmpty()) {
      return ShapeRow.not(trial.label(), "nothing is packed in this shape or a kindred one");
    }
    progress.waitingFor(trial.label());
    PackDescription pack = trial.pack().get();
    boolean program =
        trial.unfolded() ? !LiveRun.onServer(pack.shape()) : pack.shape() != Shape.WAR;
    try {
      Files.createDirectories(folder);
      Path archive = folder.resolve("packed." + pack.shape().ending());
      packing.pack(pack, archive);
      Artifact artifact = ArtifactReader.read(archive);
      try (Scratch scratch = scratches.apply(program, folder.resolve("server"))) {
        return measured(trial, artifact, scratch, folder, progress);
      }
    } catch (PackException | ProblemsException | NotDescribedException e) {
      return ShapeRow.not(trial.label(), e.getMessage());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private ShapeRow measured(
      Trial trial, Artifact artifact, Scratch scratch, Path folder, Progress progress)
      throws IOException {
    Watch watch = new Watch(progress);
    DeliveryService service = deliveries.apply(scratch.site(), watch);
    long bytes = artifact.size();
    DeliveryOutcome outcome;
    if (trial.unfolded()) {
      Unfolding unfolding = new Unfolding(folder.resolve("unpacked"));
      unfolding.follow(folder.resolve("packed." + trial.pack().get().shape().ending()));
      bytes = unfolding.size();
      outcome =
          service.deployUnfolded(
              application,
              artifact,
              new Unfolded(unfolding.folder(), unfolding.stamp(name -> true)));
    } else {
      outcome = service.deploy(application, artifact, Source.UNKNOWN, Manner.USUAL);
    }
    if (outcome.result() == DeliveryOutcome.Result.BLOCKED) {
      return ShapeRow.not(trial.label(), blockers(outcome));
    }
    List<CheckResult> checks = watch.checks;
    return new ShapeRow(
        trial.label(),
        scratch.site().traits().label(),
        "",
        bytes,
        watch.start,
        checks.isEmpty() ? Duration.ZERO : checks.get(0).took(),
        watch.memory(scratch.site()),
        (int) checks.stream().filter(CheckResult::passed).count(),
        checks.size(),
        outcome);
  }

  private static String blockers(DeliveryOutcome outcome) {
    return outcome.findings().stream()
        .filter(finding -> finding.level() == Finding.Level.BLOCKER)
        .map(finding -> finding.message() + ". " + finding.fix())
        .collect(Collectors.joining("; "));
  }

  /** Takes the times of the steps as they go by. */
  private final class Watch implements Progress {
    private final Progress shown;
    private final List<CheckResult> checks = new ArrayList<>();
    private Instant started = Instant.MAX;
    private Duration start = Duration.ZERO;

    Watch(Progress shown) {
      this.shown = shown;
    }

    @Override
    public void step(Server server, Step step) {
      if (step instanceof Step.StartServer) {
        started = time.now();
      } else if (step instanceof Step.RunChecks && start.isZero()) {
        start = Duration.between(started, time.now());
      }
      shown.step(server, step);
    }

    @Override
    public void waitingFor(String what) {
      shown.waitingFor(what);
    }

    @Override
    public void checked(CheckResult result) {
      checks.add(result);
      shown.checked(result);
    }

    long memory(Site site) {
      return site.stockTaker()
          .presence()
          .found()
          .map(running -> site.host().processes().memory(running.identity()))
          .orElse(0L);
    }
  }
}

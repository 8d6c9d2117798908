package jollycrate.cli.command;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import jollycrate.Crate;
import jollycrate.app.MavenCoordinates;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.DeliveryView;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.Manner;
import jollycrate.site.FinishedArtifact;

/** {@code jolly deploy}. */
public final class DeployCommand implements Command {
  private static final Option UNDESCRIBED =
      Option.of("--undescribed", "deliver FILE by itself, whatever jolly.toml says");
  private static final Option PATH =
      Option.of(
          "--path", "/PATH", "context path of such a file; else by the server's rule for its name");
  private static final Option STARTS_WITHIN =
      Option.of("--starts-within", "TIME", "how long such a file may take to start; else 60s");
  private static final Option ON_ADMIN_PORT =
      Option.of("--on-admin-port", "deliver to the admin listener, which answers on loopback only");

  private final Session session;

  /** In a session. */
  public DeployCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "deploy",
            "Deliver an application to a server and prove that it answers.",
            "It ends delivered and proven, or the server is as it was before.")
        .takes(
            "FILE",
            "a finished WAR or JAR, or maven:GROUP:ARTIFACT:VERSION:TYPE; delivered as jolly.toml"
                + " describes it, if there is one")
        .needs(Option.TO)
        .takes(
            Option.DRY_RUN,
            Option.DIFF,
            Option.CHANGED_THERE,
            Option.HALF_APPLIED,
            Option.ACCEPT,
            Option.BUILD,
            Option.NO_BUILD)
        .takes(UNDESCRIBED, PATH, STARTS_WITHIN, ON_ADMIN_PORT, Option.JUNIT, Option.REPORT)
        .example("jolly deploy --to bench", "build, pack and deliver what jolly.toml describes")
        .example("jolly deploy spokes-1.4.0.war --to shop", "deliver this very file")
        .example(
            "jolly deploy maven:org.spokes:spokes:1.5.0:war --to shop",
            "the same from your Maven repository")
        .example("jolly deploy --to shop --dry-run", "only say what would be done");
  }

  @Override
  public int run(Given given) {
    for (Option option : List.of(UNDESCRIBED, PATH, STARTS_WITHIN)) {
      if (given.has(option) && given.operand(0).isEmpty()) {
        throw new WrongUsage(
            option.name() + " goes with FILE; [app] of jolly.toml says path and starts-within");
      }
    }
    Manner manner = given.manner(given.has(ON_ADMIN_PORT));
    DeliveryView view =
        new DeliveryView(session.screen(), manner.dryRun() || given.has(Option.DIFF));
    Crate crate = session.crate(given, view);
    long began = System.nanoTime();
    crate.find(given.server());
    DeliveryOutcome outcome =
        given
            .operand(0)
            .map(file -> crate.deployFile(finished(given, file, crate), given.server(), manner))
            .orElseGet(() -> crate.deploy(given.server(), manner, given.build()));
    Duration whole = Duration.ofNanos(System.nanoTime() - began);
    return session.end(given, outcome, whole.minusMillis(outcome.millis()));
  }

  private static FinishedArtifact finished(Given given, String named, Crate crate) {
    Path file = crate.file(named);
    Optional<String> called =
        MavenCoordinates.isMeantBy(named)
            ? Optional.of(MavenCoordinates.of(named).artifact())
            : Optional.empty();
    return new FinishedArtifact(
        file, called, given.has(UNDESCRIBED), given.text(PATH), given.time(STARTS_WITHIN));
  }
}

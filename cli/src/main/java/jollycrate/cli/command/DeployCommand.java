package jollycrate.cli.command;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.concurrent.Callable;
import jollycrate.Crate;
import jollycrate.FinishedArtifact;
import jollycrate.app.Durations;
import jollycrate.cli.options.BuildOptions;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.output.DeliveryView;
import jollycrate.delivery.DeliveryOutcome;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code jolly deploy}. */
@Command(
    name = "deploy",
    description = {
      "Deliver an application to a server and prove that it answers.",
      "It ends delivered and proven, or the server is as it was before."
    })
public final class DeployCommand implements Callable<Integer> {
  private final Session session;

  @Spec private CommandSpec spec;

  @Mixin private CommonOptions options;

  @Mixin private BuildOptions build;

  @Parameters(
      arity = "0..1",
      paramLabel = "FILE",
      description =
          "A finished WAR or JAR; it is delivered as jolly.toml describes it, if there is one.")
  private Path file;

  @Option(
      names = "--to",
      required = true,
      paramLabel = "NAME",
      description = "The server, as servers.toml names it.")
  private String server;

  @Option(
      names = "--path",
      paramLabel = "/PATH",
      description = "Context path for FILE; else by the server's own rule for file names.")
  private String path;

  @Option(
      names = "--undescribed",
      description = "Deliver FILE by itself, whatever jolly.toml says.")
  private boolean undescribed;

  @Option(
      names = "--starts-within",
      paramLabel = "TIME",
      description = "How long FILE may take to start, like 90s; else a minute.")
  private String startsWithin;

  @Option(
      names = "--on-admin-port",
      description = "Deliver to the admin listener, which answers on loopback only.")
  private boolean onAdminPort;

  @Option(names = "--dry-run", description = "Show findings and steps; change nothing.")
  private boolean dryRun;

  /** In a session. */
  public DeployCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    if (path != null && file == null) {
      throw new ParameterException(
          spec.commandLine(), "--path goes with FILE; with jolly.toml, write 'path' under [app]");
    }
    if (undescribed && file == null) {
      throw new ParameterException(spec.commandLine(), "--undescribed goes with FILE");
    }
    if (startsWithin != null && file == null) {
      throw new ParameterException(
          spec.commandLine(),
          "--starts-within goes with FILE; with jolly.toml, write 'starts-within' under [app]");
    }
    DeliveryView view = new DeliveryView(session.screen());
    Crate crate = session.crate(options, view);
    DeliveryOutcome outcome =
        file == null
            ? crate.deploy(server, onAdminPort, dryRun, build.mode())
            : crate.deployFile(
                new FinishedArtifact(
                    session.setting().folder().resolve(file).normalize(),
                    undescribed,
                    Optional.ofNullable(path),
                    Optional.ofNullable(startsWithin).map(this::duration)),
                server,
                onAdminPort,
                dryRun);
    return session.end(options, view, outcome);
  }

  private Duration duration(String text) {
    return Durations.parse(text)
        .orElseThrow(
            () ->
                new ParameterException(
                    spec.commandLine(),
                    "'" + text + "' is no length of time like 90s or 2m, in --starts-within"));
  }
}

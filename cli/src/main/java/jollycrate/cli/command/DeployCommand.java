package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.Optional;
import java.util.concurrent.Callable;
import jollycrate.Crate;
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
      description = "A finished WAR, delivered without jolly.toml.")
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
    DeliveryView view = new DeliveryView(session.screen());
    Crate crate = session.crate(options, view);
    DeliveryOutcome outcome =
        file == null
            ? crate.deploy(server, onAdminPort, dryRun, build.mode())
            : crate.deployFile(
                session.setting().folder().resolve(file).normalize(),
                Optional.ofNullable(path),
                server,
                onAdminPort,
                dryRun);
    return session.end(options, view, outcome);
  }
}

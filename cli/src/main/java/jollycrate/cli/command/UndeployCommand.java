package jollycrate.cli.command;

import java.util.Optional;
import java.util.concurrent.Callable;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.output.DeliveryView;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code jolly undeploy}. */
@Command(
    name = "undeploy",
    description = {
      "Take an application away from a server, without a trace.",
      "Data that the application wrote stays and is named."
    })
public final class UndeployCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private CommonOptions options;

  @Parameters(
      arity = "0..1",
      paramLabel = "APP",
      description = "Name of the application; else the one that jolly.toml describes.")
  private String application;

  @Option(
      names = "--from",
      required = true,
      paramLabel = "NAME",
      description = "The server, as servers.toml names it.")
  private String server;

  @Option(names = "--dry-run", description = "Show findings and steps; change nothing.")
  private boolean dryRun;

  /** In a session. */
  public UndeployCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    DeliveryView view = new DeliveryView(session.screen());
    return session.end(
        options,
        view,
        session.crate(options, view).undeploy(Optional.ofNullable(application), server, dryRun));
  }
}

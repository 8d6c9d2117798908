package jollycrate.cli.command;

import java.util.Optional;
import java.util.concurrent.Callable;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.options.OnServer;
import jollycrate.cli.output.DeliveryView;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

/** {@code jolly check}. */
@Command(
    name = "check",
    description = "Run the checks of an application against what stands on a server.")
public final class CheckCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private CommonOptions options;
  @Mixin private OnServer on;

  @Parameters(
      arity = "0..1",
      paramLabel = "APP",
      description = "Name of the application; else the one that jolly.toml describes.")
  private String application;

  /** In a session. */
  public CheckCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    DeliveryView view = new DeliveryView(session.screen());
    return session.end(
        options,
        view,
        session.crate(options, view).check(Optional.ofNullable(application), on.name()));
  }
}

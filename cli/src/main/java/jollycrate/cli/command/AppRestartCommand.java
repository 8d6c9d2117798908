package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveryView;

/** {@code jolly app restart}. */
public final class AppRestartCommand implements Command {
  private final Session session;

  /** In a session. */
  public AppRestartCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "app restart",
            "Start one application anew while its server and all else on it go on.",
            "Nothing of it changes but a time stamp; its checks are run afterwards.")
        .takes("APP", "name of the application; else the one that jolly.toml describes")
        .needs(Option.ON)
        .example("jolly app restart --on shop", "the one that jolly.toml describes");
  }

  @Override
  public int run(Given given) {
    DeliveryView view = new DeliveryView(session.screen(), false);
    return session.end(given, session.crate(given, view).restart(given.operand(0), given.server()));
  }
}

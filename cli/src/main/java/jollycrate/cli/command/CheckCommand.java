package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveryView;

/** {@code jolly check}. */
public final class CheckCommand implements Command {
  private final Session session;

  /** In a session. */
  public CheckCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of("check", "Run the checks of an application against what stands on a server.")
        .takes("APP", "name of the application; else the one that jolly.toml describes")
        .needs(Option.ON)
        .takes(Option.JUNIT)
        .example("jolly check --on shop", "run the checks that jolly.toml describes")
        .example("jolly check orders --on shop", "ask an application that nothing describes");
  }

  @Override
  public int run(Given given) {
    DeliveryView view = new DeliveryView(session.screen(), false);
    return session.end(
        given, session.crate(given, view).apps().check(given.operand(0), given.server()));
  }
}

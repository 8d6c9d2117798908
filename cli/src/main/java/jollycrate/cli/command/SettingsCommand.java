package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.SettingsView;
import jollycrate.site.ValuesInForce;

/** {@code jolly settings}. */
public final class SettingsCommand implements Command {
  private final Session session;

  /** In a session. */
  public SettingsCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "settings",
            "Show the values that count on a server, and where each of them stands.",
            "Of the application that jolly.toml describes here, and of the server itself.")
        .needs(Option.ON)
        .example("jolly settings --on shop", "what counts there, and what it overrides");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    ValuesInForce values = session.crate(given).servers().values(given.server());
    if (given.json()) {
      return session.done(values);
    }
    new SettingsView(session.screen(), session.setting().folder()).show(values);
    return ExitCode.DONE.code();
  }
}

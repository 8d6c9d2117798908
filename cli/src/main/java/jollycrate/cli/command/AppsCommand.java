package jollycrate.cli.command;

import java.util.List;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.AppsView;
import jollycrate.cli.output.ExitCode;
import jollycrate.site.ServerApps;

/** {@code jolly apps}. */
public final class AppsCommand implements Command {
  private static final Option ON =
      Option.of("--on", "NAME", "one server; else every one that servers.toml describes");

  private final Session session;

  /** In a session. */
  public AppsCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "apps",
            "Show the applications of servers: as the server knows them, and as a request sees"
                + " them.",
            "The server's process is asked about sessions and connections; that opens a port in it"
                + " for users of this machine, until it ends.")
        .takes(ON)
        .example("jolly apps --on shop", "what runs there, whoever put it there");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    List<ServerApps> servers = session.crate(given).servers().apps(given.text(ON));
    if (given.json()) {
      return session.ended(ExitCode.DONE, "apps", servers);
    }
    new AppsView(session.screen()).show(servers);
    return ExitCode.DONE.code();
  }
}

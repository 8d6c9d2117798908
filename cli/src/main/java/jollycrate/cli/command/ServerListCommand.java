package jollycrate.cli.command;

import java.util.List;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.ServersView;
import jollycrate.site.ServerState;

/** {@code jolly server list}. */
public final class ServerListCommand implements Command {
  private final Session session;

  /** In a session. */
  public ServerListCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of("server list", "Show every described server as it stands now.")
        .example("jolly server list", "what runs where, and which applications stand on it");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    List<ServerState> servers = session.crate(given).servers().states();
    if (given.json()) {
      return session.ended(ExitCode.DONE, "servers", servers);
    }
    new ServersView(session.screen()).show(servers);
    return ExitCode.DONE.code();
  }
}

package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.ServersView;
import jollycrate.site.ServerRemoval;

/** {@code jolly server remove}. */
public final class ServerRemoveCommand implements Command {
  private static final Option DELETE =
      Option.of("--delete", "do it; without this it is only told what would go");

  private final Session session;

  /** In a session. */
  public ServerRemoveCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server remove",
            "Remove a server on which nothing stands any more.",
            "Its folder and its entry in servers.toml go; what stands in the folder is named.")
        .needs("NAME", "the server, as servers.toml names it")
        .takes(DELETE)
        .example("jolly server remove bench", "what would be deleted")
        .example("jolly server remove bench --delete", "delete that");
  }

  @Override
  public int run(Given given) {
    ServerRemoval removal =
        session.crate(given).servers().remove(given.operand(0).orElseThrow(), given.has(DELETE));
    if (given.json()) {
      return session.done(removal);
    }
    new ServersView(session.screen()).show(removal);
    return ExitCode.DONE.code();
  }
}

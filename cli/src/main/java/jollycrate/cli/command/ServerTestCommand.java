package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;

/** {@code jolly server test}. */
public final class ServerTestCommand implements Command {
  private final Session session;

  /** In a session. */
  public ServerTestCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server test",
            "Look whether a server is as servers.toml describes it.",
            "Installation, folder, Java, disk, process, ports and what it answers; nothing is"
                + " changed.")
        .needs("NAME", "the server, as servers.toml names it")
        .example("jolly server test shop", "what is wrong there, and what to do about it");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    String name = given.operand(0).orElseThrow();
    return session.examined(
        given, name, session.crate(given).servers().examine(name), "is as it is described");
  }
}

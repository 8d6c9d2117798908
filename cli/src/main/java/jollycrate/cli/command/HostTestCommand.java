package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;

/** {@code jolly host test}. */
public final class HostTestCommand implements Command {
  private final Session session;

  /** In a session. */
  public HostTestCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "host test",
            "Look what a machine has of what servers need.",
            "How one gets there, system, tools, disk, clock, every Java, who holds which port, and"
                + " what outlives a log-out; nothing is changed.")
        .needs("NAME", "the machine, as servers.toml names it")
        .example("jolly host test app1", "whether it can be worked on, and what to do about it");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    String name = given.operand(0).orElseThrow();
    return session.examined(
        given, name, session.crate(given).hosts().examine(name), "can be worked on");
  }
}

package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.HostsView;
import jollycrate.host.StandIn;

/** {@code jolly host new}. */
public final class HostNewCommand implements Command {
  private final Session session;

  /** In a session. */
  public HostNewCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "host new",
            "Make a practice host: a small stand-in for another machine, to learn and to try on.",
            "It is an SSH server with an address of its own on this machine, a home in a folder of"
                + " its own, and inbound rules that let nothing in but SSH. It is described in"
                + " servers.toml and started; no root and no network are needed.")
        .needs("NAME", "its name from now on")
        .example("jolly host new app1", "make it, in hosts/app1 beside servers.toml")
        .example("jolly server new shop --host app1", "then a server on it");
  }

  @Override
  public int run(Given given) {
    StandIn made = session.crate(given).hosts().make(given.operand(0).orElseThrow());
    if (given.json()) {
      return session.done(made);
    }
    new HostsView(session.screen()).made(made);
    return ExitCode.DONE.code();
  }
}

package jollycrate.cli.command;

import java.util.List;
import jollycrate.Hosts;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.HostsView;

/** {@code jolly host list}. */
public final class HostListCommand implements Command {
  private final Session session;

  /** In a session. */
  public HostListCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of("host list", "Show every described machine, and whether it is reached now.")
        .example("jolly host list", "the machines of [host.NAME] in servers.toml");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    List<Hosts.State> hosts = session.crate(given).hosts().states();
    if (given.json()) {
      return session.ended(ExitCode.DONE, "hosts", hosts);
    }
    new HostsView(session.screen()).show(hosts);
    return ExitCode.DONE.code();
  }
}

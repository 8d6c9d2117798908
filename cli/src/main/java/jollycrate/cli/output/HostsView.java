package jollycrate.cli.output;

import java.util.List;
import java.util.stream.Collectors;
import jollycrate.Hosts;
import jollycrate.host.HostKey;
import jollycrate.host.StandIn;

/** Shows machines, and the keys by which they are known. */
public final class HostsView {
  private final Screen screen;
  private final Style style;

  /** On that screen. */
  public HostsView(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /** A line for each, and below it why it is not reached. */
  public void show(List<Hosts.State> hosts) {
    if (hosts.isEmpty()) {
      screen.line("No machine is described. Write [host.NAME] with 'ssh' into servers.toml.");
    }
    for (Hosts.State host : hosts) {
      Table table = new Table("");
      table.row().cell(host.name(), style::strong);
      if (host.problem().isEmpty()) {
        table.cell("reached", style::good).cell(host.told());
      } else {
        table.cell("not reached", style::bad).cell(host.ssh());
      }
      if (!host.sudo().isEmpty()) {
        table.cell("as " + host.sudo());
      }
      table.lines().forEach(screen::line);
      host.practice().ifPresent(its -> screen.line("  practice host, " + lets(its)));
      if (!host.problem().isEmpty()) {
        screen.line("  " + host.problem());
      }
    }
  }

  private static String lets(StandIn host) {
    String ports = host.open().stream().map(port -> ", " + port).collect(Collectors.joining());
    return "lets in TCP " + host.port() + " (SSH)" + ports;
  }

  /** A practice host that was made. */
  public void made(StandIn host) {
    screen.line(
        style.good("Made")
            + " practice host "
            + host.name()
            + " at "
            + host.address()
            + "; it runs, and is described in servers.toml");
    rules(host);
    screen.line(
        "A server on it: jolly server new NAME --host " + host.name() + ", at " + host.inside());
  }

  /** What a practice host lets in. */
  public void rules(StandIn host) {
    screen.line(host.name() + " " + lets(host));
  }

  /** A key that a machine shows, and what stands in its way. */
  public void key(String name, HostKey key) {
    screen.line(name + " shows its key (" + key.type() + "):");
    screen.line("  " + style.strong(key.fingerprint()));
    key.known()
        .filter(known -> !key.trusted() && !key.revoked())
        .ifPresent(
            known -> {
              screen.line("trusted until now (" + key.file() + " line " + key.line() + "):");
              screen.line("  " + style.bad(known));
            });
  }

  /** What became of it. */
  public void trusted(String name, HostKey key, boolean before) {
    screen.line(
        before
            ? name + " is trusted already, by " + key.file() + " line " + key.line() + "."
            : style.good("Trusted") + ": " + key.file() + " has this key of " + name + " now.");
  }
}

package jollycrate.cli.output;

import java.util.List;
import jollycrate.Hosts;
import jollycrate.host.HostKey;

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
      if (!host.problem().isEmpty()) {
        screen.line("  " + host.problem());
      }
    }
  }

  /** A key that a machine shows, and what stands in its way. */
  public void key(String name, HostKey key) {
    screen.line(name + " shows its key (" + key.type() + "):");
    screen.line("  " + style.strong(key.fingerprint()));
    key.known()
        .filter(known -> !key.trusted())
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

package jollycrate.cli.output;

import java.util.List;
import jollycrate.file.Sizes;
import jollycrate.site.ServerRemoval;
import jollycrate.site.ServerState;

/** Shows servers as they stand. */
public final class ServersView {
  private final Screen screen;

  /** On that screen. */
  public ServersView(Screen screen) {
    this.screen = screen;
  }

  private static String fare(ServerState server) {
    return switch (server.fare()) {
      case RUNS -> "runs, pid " + server.pid();
      case STARTED_BY_ANOTHER -> "runs, pid " + server.pid() + ", not started by jolly";
      case STOPPED -> "stopped";
      case UNKNOWN -> "unknown";
    };
  }

  /** One table. */
  public void show(List<ServerState> servers) {
    Style style = screen.style();
    Table table = new Table("");
    for (ServerState server : servers) {
      table
          .row()
          .cell(server.name(), style::strong)
          .cell(server.kind())
          .cell(fare(server), server.fare() == ServerState.Fare.RUNS ? style::good : style::faint)
          .cell(server.address(), style::place)
          .cell(server.admin() > 0 ? "admin port " + server.admin() : "", style::faint)
          .cell(server.folder(), style::faint);
    }
    List<String> lines = table.lines();
    for (int i = 0; i < lines.size(); i++) {
      screen.line(lines.get(i));
      ServerState server = servers.get(i);
      for (ServerState.Standing app : server.applications()) {
        screen.line("  " + (app.name() + " " + app.version()).strip() + "  " + app.address());
      }
      if (!server.trouble().isEmpty()) {
        server.trouble().lines().forEach(line -> screen.line("  " + style.odd(line)));
      }
    }
  }

  /** What goes with a server. */
  public void show(ServerRemoval removal) {
    Style style = screen.style();
    String name = removal.server();
    if (!removal.paths().isEmpty() || !removal.folder().isEmpty()) {
      String what =
          removal.folder().isEmpty() ? "our records there" : style.place(removal.folder());
      screen.line((removal.removed() ? "Deleted " : "Would delete ") + what);
      Table table = new Table("  ");
      removal
          .paths()
          .forEach(
              content ->
                  table.row().cell(content.path()).cell(Sizes.told(content.size()), style::faint));
      table.lines().forEach(screen::line);
    }
    screen.line(
        removal.removed()
            ? style.good("Removed") + " server " + name + " from servers.toml"
            : "Would take server "
                + name
                + " out of servers.toml. Nothing was changed; --delete does it");
  }
}

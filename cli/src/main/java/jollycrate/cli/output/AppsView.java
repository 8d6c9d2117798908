package jollycrate.cli.output;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import jollycrate.app.ContextPath;
import jollycrate.file.Sizes;
import jollycrate.server.Inside;
import jollycrate.server.Placement;
import jollycrate.site.ServerApps;

/** Shows the applications of servers. */
public final class AppsView {
  private final Screen screen;
  private final Style style;

  /** On that screen. */
  public AppsView(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /** Servers one below the other. */
  public void show(List<ServerApps> servers) {
    for (ServerApps server : servers) {
      if (server != servers.get(0)) {
        screen.gap();
      }
      show(server);
    }
  }

  /** A line for the server, then one for each application. */
  private void show(ServerApps server) {
    screen.line(style.strong(server.server()) + "  " + String.join(", ", facts(server)));
    Table table = new Table("  ");
    for (ServerApps.App app : server.apps()) {
      table
          .row()
          .cell(ContextPath.shown(app.contextPath()), app.ours() ? style::strong : style::faint)
          .cell((app.name() + " " + app.version()).strip())
          .cell(app.state(), app.state().equals("STARTED") ? style::good : style::odd)
          .cell(app.answer() > 0 ? String.valueOf(app.answer()) : "no answer")
          .cell(app.sessions().map(AppsView::sessions).orElse(""), style::faint)
          .cell(String.join(", ", app.pools().stream().map(AppsView::pool).toList()), style::faint)
          .cell(listener(app.listener()), style::faint);
    }
    table.lines().forEach(screen::line);
    if (!server.untold().isEmpty()) {
      screen.line("  " + style.faint("By its files and requests only: " + server.untold() + "."));
    }
  }

  private static String listener(String name) {
    return switch (name) {
      case Placement.MAIN -> "";
      case Placement.ADMIN -> "admin port";
      default -> "host " + name;
    };
  }

  private static List<String> facts(ServerApps server) {
    List<String> facts = new ArrayList<>(List.of(server.kind()));
    if (server.pid() > 0) {
      facts.add("pid " + server.pid());
      facts.add(Sizes.told(server.memory()));
    }
    server.threads().ifPresent(threads -> facts.add(threads + " threads"));
    server
        .since()
        .map(since -> Duration.between(since, Instant.now()))
        .ifPresent(up -> facts.add("up " + up(up)));
    return facts;
  }

  private static String up(Duration up) {
    if (up.toDays() > 0) {
      return up.toDays() + " d " + up.toHoursPart() + " h";
    }
    return up.toHours() > 0
        ? up.toHours() + " h " + up.toMinutesPart() + " min"
        : up.toMinutes() > 0 ? up.toMinutes() + " min" : up.toSeconds() + " s";
  }

  private static String sessions(long count) {
    return Amounts.count((int) count, "session", "sessions");
  }

  private static String pool(Inside.Pool pool) {
    return pool.name()
        + " "
        + pool.used()
        + " used, "
        + pool.idle()
        + " idle"
        + (pool.most() < 0 ? "" : " of " + pool.most());
  }
}

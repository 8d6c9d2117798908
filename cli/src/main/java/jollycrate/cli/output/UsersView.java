package jollycrate.cli.output;

import java.util.List;
import jollycrate.server.ServerUser;

/** Shows whom a server itself knows. */
public final class UsersView {
  private final Screen screen;

  /** On that screen. */
  public UsersView(Screen screen) {
    this.screen = screen;
  }

  /** One line for each. */
  public void show(String server, List<ServerUser> users) {
    Style style = screen.style();
    if (users.isEmpty()) {
      screen.line("Server " + server + " itself knows no users.");
      return;
    }
    Table table = new Table("");
    table
        .row()
        .cell("user", style::faint)
        .cell("roles", style::faint)
        .cell("password stored as", style::faint)
        .cell("where", style::faint);
    for (ServerUser user : users) {
      table
          .row()
          .cell(user.name(), style::strong)
          .cell(String.join(", ", user.roles()))
          .cell(user.stored(), user.stored().equals("salted hash") ? style::good : style::odd)
          .cell(user.where(), style::faint);
    }
    table.lines().forEach(screen::line);
  }
}

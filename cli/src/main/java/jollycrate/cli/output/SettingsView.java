package jollycrate.cli.output;

import java.nio.file.Path;
import java.util.List;
import java.util.stream.Collectors;
import jollycrate.site.ValuesInForce;

/** Shows the values that count on a server. */
public final class SettingsView {
  private static final int MOST_VALUE = 60;

  private final Screen screen;
  private final Style style;
  private final Path folder;

  /**
   * On that screen.
   *
   * @param folder that files are shown from
   */
  public SettingsView(Screen screen, Path folder) {
    this.screen = screen;
    this.style = screen.style();
    this.folder = folder;
  }

  /** The application's first, then the server's. */
  public void show(ValuesInForce values) {
    if (!values.application().isEmpty()) {
      show(values.application() + " on " + values.server(), values.ofApplication());
      screen.gap();
    }
    show("server " + values.server(), values.ofServer());
    if (!values.resolved()) {
      screen.gap();
      screen.line(
          style.odd("Not set:")
              + " a delivery asks for every reference; set what is missing, or write it into .env");
    }
  }

  private void show(String heading, List<ValuesInForce.Value> values) {
    screen.line(style.strong(heading));
    Table table = new Table("  ");
    for (ValuesInForce.Value value : values) {
      table
          .row()
          .cell(value.key())
          .cell(brief(value.value()) + state(value), style::place)
          .cell(from(value), style::faint);
    }
    table.lines().forEach(screen::line);
  }

  private static String brief(String value) {
    return value.length() > MOST_VALUE ? value.substring(0, MOST_VALUE - 3) + "..." : value;
  }

  private String state(ValuesInForce.Value value) {
    return value.resolves().map(known -> known ? "" : style.bad("  not set")).orElse("");
  }

  private String from(ValuesInForce.Value value) {
    if (value.from().isEmpty()) {
      return "usual";
    }
    String overrides =
        value.overrides().stream().map(this::shown).collect(Collectors.joining(", "));
    return shown(value.from()) + (overrides.isEmpty() ? "" : ", over " + overrides);
  }

  private String shown(String place) {
    return place.startsWith(folder + "/") ? place.substring(folder.toString().length() + 1) : place;
  }
}

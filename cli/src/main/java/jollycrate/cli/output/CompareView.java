package jollycrate.cli.output;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.Comparison;
import jollycrate.file.Sizes;

/** Shows how two archives differ. */
public final class CompareView {
  private static final String MARGIN = "  ";
  private static final int MOST_LINES = 40;

  private final Screen screen;
  private final Style style;

  /**
   * What machines read.
   *
   * @param identical whether both hold the same bytes
   */
  public record Document(Artifact before, Artifact after, Comparison files, boolean identical) {}

  /** On that screen. */
  public CompareView(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /** The whole sheet. */
  public void show(Document document) {
    if (document.identical()) {
      screen.line(style.good("Identical") + ", byte for byte");
      return;
    }
    facts(document.before(), document.after());
    Comparison files = document.files();
    if (files.isEmpty()) {
      screen.line(
          style.good("Same content")
              + " in all "
              + Amounts.count(files.same(), "file", "files")
              + "; only how it is packed differs");
      return;
    }
    screen.line(style.strong("files, " + summary(files)));
    List<String> lines = lines(style, files);
    lines.stream().limit(MOST_LINES).forEach(screen::line);
    if (lines.size() > MOST_LINES) {
      screen.line(
          MARGIN
              + style.faint("and " + (lines.size() - MOST_LINES) + " more; --json tells them all"));
    }
  }

  private void facts(Artifact before, Artifact after) {
    Table table = new Table(MARGIN);
    row(table, "release", before, after, a -> (a.name() + " " + a.version()).strip());
    row(table, "kind", before, after, a -> a.kind().label());
    row(table, "size", before, after, a -> Sizes.told(a.size()));
    row(
        table,
        "java",
        before,
        after,
        a -> a.classes().java() == 0 ? "no classes" : "needs " + a.classes().java());
    row(table, "servlets", before, after, a -> a.web().namespace().label());
    row(table, "main class", before, after, a -> a.start().mainClass().orElse("none"));
    row(table, "data sources", before, after, a -> names(a.web().dataSources()));
    row(table, "roles", before, after, a -> String.join(", ", a.web().roles()));
    if (!table.lines().isEmpty()) {
      screen.line(style.strong("differs in"));
      table.lines().forEach(screen::line);
    }
    endpoints(before, after);
  }

  private static String names(List<Artifact.Declared> declared) {
    return String.join(", ", declared.stream().map(Artifact.Declared::name).toList());
  }

  private void row(
      Table table, String label, Artifact one, Artifact other, Function<Artifact, String> fact) {
    String before = fact.apply(one);
    String after = fact.apply(other);
    if (!before.equals(after)) {
      table
          .row()
          .cell(label, style::faint)
          .cell(before.isEmpty() ? "none" : before)
          .cell("->", style::faint)
          .cell(after.isEmpty() ? "none" : after);
    }
  }

  private void endpoints(Artifact before, Artifact after) {
    List<String> old = before.web().endpoints().stream().map(Artifact.Endpoint::pattern).toList();
    List<String> now = after.web().endpoints().stream().map(Artifact.Endpoint::pattern).toList();
    Table table = new Table(MARGIN);
    for (String pattern : now.stream().filter(p -> !old.contains(p)).toList()) {
      table.row().cell("new", style::good).cell(shown(pattern));
    }
    for (String pattern : old.stream().filter(p -> !now.contains(p)).toList()) {
      table.row().cell("gone", style::gone).cell(shown(pattern));
    }
    if (!table.lines().isEmpty()) {
      screen.line(style.strong("endpoints"));
      table.lines().forEach(screen::line);
    }
  }

  private static String shown(String pattern) {
    return pattern.isEmpty() ? "/ exactly" : pattern;
  }

  static String summary(Comparison files) {
    List<String> words = new ArrayList<>();
    for (Comparison.Kind kind : Comparison.Kind.values()) {
      int count = files.count(kind);
      if (count > 0) {
        words.add(count + " " + word(kind));
      }
    }
    words.add(files.same() + " same");
    return String.join(", ", words);
  }

  private static String word(Comparison.Kind kind) {
    return kind == Comparison.Kind.VERSION
        ? "in another version"
        : kind.name().toLowerCase(Locale.ROOT);
  }

  /** The weightiest changes first. */
  static List<String> lines(Style style, Comparison files) {
    Table table = new Table(MARGIN);
    files.changes().stream()
        .sorted(Comparator.comparingLong(change -> -Math.max(change.before(), change.after())))
        .forEach(
            change -> {
              table.row();
              switch (change.kind()) {
                case ADDED -> table.cell("added", style::good);
                case REMOVED -> table.cell("removed", style::gone);
                case CHANGED -> table.cell("changed", style::odd);
                case VERSION -> table.cell("version", style::odd);
              }
              table.cell(sizes(change)).cell(change.path());
            });
    return table.lines();
  }

  private static String sizes(Comparison.Change change) {
    String before = Sizes.told(change.before());
    String after = Sizes.told(change.after());
    return switch (change.kind()) {
      case ADDED -> after;
      case REMOVED -> before;
      default -> before.equals(after) ? after : before + " -> " + after;
    };
  }
}

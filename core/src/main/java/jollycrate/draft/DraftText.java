package jollycrate.draft;

import java.util.ArrayList;
import java.util.List;
import org.tomlj.Toml;

/** Writes a draft: values with where they were found, and marks for what must still be told. */
final class DraftText {
  /** Begins a line that a person must complete. */
  static final String MARK = "# tell: ";

  private final StringBuilder text = new StringBuilder();
  private final List<Draft.Found> found = new ArrayList<>();
  private final List<String> untold = new ArrayList<>();
  private String table = "";

  static String quoted(String value) {
    return '"' + Toml.tomlEscape(value).toString() + '"';
  }

  /** A key as TOML takes it bare, else in quotes. */
  static String key(String name) {
    return name.matches("[A-Za-z0-9_-]+") ? name : quoted(name);
  }

  static String list(List<String> values) {
    return values.stream().map(DraftText::quoted).toList().toString();
  }

  void table(String name) {
    table = name;
    text.append("\n").append(name.startsWith("[") ? name : "[" + name + "]").append("\n");
  }

  void gap() {
    text.append('\n');
  }

  void value(String key, String written, String where) {
    String line = key + " = " + written;
    text.append(where.isEmpty() ? line : String.format("%-40s # %s", line, where)).append('\n');
    found.add(new Draft.Found(named(key), written, where));
  }

  void text(String key, String value, String where) {
    value(key, quoted(value), where);
  }

  void mark(String line, String question) {
    text.append(MARK).append(line).append('\n');
    ask("[" + plain(table) + "] ", question);
  }

  /** Something to tell in a line that stands there already. */
  void ask(String question) {
    untold.add(question);
  }

  private void ask(String place, String question) {
    untold.add((table.isEmpty() ? "" : place) + question);
  }

  void note(String line) {
    text.append("# ").append(line).append('\n');
  }

  private String named(String key) {
    return table.isEmpty() ? key : plain(table) + "." + key;
  }

  private static String plain(String name) {
    return name.replaceAll("^\\[+|]+$", "");
  }

  List<Draft.Found> found() {
    return List.copyOf(found);
  }

  List<String> untold() {
    return List.copyOf(untold);
  }

  String all() {
    return text.toString();
  }
}

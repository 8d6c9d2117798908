package jollycrate.draft;

import java.util.ArrayList;
import java.util.List;

/**
 * A check that could be made.
 *
 * @param name of the check; of a row of the table of who may see what, its path
 * @param path that is asked for
 * @param lines as they stand in {@code jolly.toml}
 * @param where it was found
 */
record Candidate(String name, String path, List<String> lines, String where) {
  /** One request with what is expected of it. */
  static Candidate get(String path, List<String> expected, String where) {
    String name = path + " answers";
    List<String> lines =
        concat(List.of("[[check]]", "name = " + DraftText.quoted(name)), "get", path, expected);
    return new Candidate(name, path, lines, where);
  }

  /** A page with all that it refers to. */
  static Candidate page(String path, String where) {
    String name = path + " is whole";
    List<String> lines =
        concat(List.of("[[check]]", "name = " + DraftText.quoted(name)), "page", path, List.of());
    return new Candidate(name, path, lines, where);
  }

  /**
   * Who may see a path.
   *
   * @param allowed who surely sees it; nobody is told when that is empty
   */
  static Candidate access(String path, List<String> allowed, String where) {
    List<String> lines = new ArrayList<>();
    lines.add("[[access]]");
    lines.add("paths = " + DraftText.list(List.of(path)));
    if (!allowed.isEmpty()) {
      lines.add("allowed = " + DraftText.list(allowed));
    }
    lines.add("denied = [\"anyone\"]");
    return new Candidate("anyone may not see " + path, path, lines, where);
  }

  private static List<String> concat(
      List<String> head, String key, String path, List<String> expected) {
    List<String> lines = new ArrayList<>(head);
    lines.add(key + " = " + DraftText.quoted(path));
    lines.addAll(expected);
    return lines;
  }

  /** As it is written, with where it was found. */
  String text() {
    return "\n# " + where + "\n" + String.join("\n", lines) + "\n";
  }
}

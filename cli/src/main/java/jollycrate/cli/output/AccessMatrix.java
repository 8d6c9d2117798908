package jollycrate.cli.output;

import java.util.List;
import java.util.Optional;
import jollycrate.app.Check;
import jollycrate.check.CheckResult;

/** Who may see what, as it was found: a row for each path, a column for each of the people. */
record AccessMatrix(List<CheckResult> cells, List<String> people, List<String> paths) {
  static AccessMatrix of(List<CheckResult> results) {
    List<CheckResult> cells = results.stream().filter(one -> one.cell().isPresent()).toList();
    return new AccessMatrix(
        cells,
        cells.stream().map(one -> cell(one).who()).distinct().toList(),
        cells.stream().map(one -> cell(one).path()).distinct().toList());
  }

  boolean isEmpty() {
    return cells.isEmpty();
  }

  /** What was found; empty where nothing was asked. */
  Optional<CheckResult> at(String path, String who) {
    return cells.stream()
        .filter(one -> cell(one).path().equals(path) && cell(one).who().equals(who))
        .findFirst();
  }

  /** A cell in words. */
  static String told(CheckResult result) {
    boolean allowed = cell(result).allowed();
    if (result.passed()) {
      return (allowed ? "sees it, " : "kept out, ") + result.status();
    }
    return "WRONG: "
        + (result.status() == 0 ? "no answer" : "" + result.status())
        + (allowed ? ", is to see it" : ", is to be kept out");
  }

  private static Check.Cell cell(CheckResult result) {
    return result.cell().orElseThrow();
  }
}

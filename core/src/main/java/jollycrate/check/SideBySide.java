package jollycrate.check;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.net.URI;
import java.util.ArrayList;
import java.util.List;
import jollycrate.app.Check;

/** The same checks of one application at two places. */
public record SideBySide(List<Place> places, List<Pair> pairs) {
  /**
   * One of the two.
   *
   * @param release what stands there, with its version
   */
  public record Place(String server, String release) {}

  /**
   * What came of one check at both.
   *
   * @param differences what differs in what came; empty where nothing does
   */
  public record Pair(CheckResult one, CheckResult other, List<String> differences) {
    /** Whether the same came from both. */
    @JsonProperty
    public boolean same() {
      return differences.isEmpty();
    }
  }

  /**
   * What came from one of the two.
   *
   * @param base address of the application, ending in a slash
   */
  public record Side(Place place, URI base, List<CheckResult> results, KeptAnswers answers) {}

  /** Compares what came. */
  public static SideBySide of(List<Check> checks, Side one, Side other) {
    List<Pair> pairs = new ArrayList<>();
    for (int i = 0; i < Math.min(one.results().size(), other.results().size()); i++) {
      CheckResult first = one.results().get(i);
      CheckResult second = other.results().get(i);
      List<String> differences = new ArrayList<>();
      if (first.status() != second.status()) {
        differences.add("status " + first.status() + " and " + second.status());
      } else if (i < checks.size() && comparable(checks.get(i))) {
        differences.addAll(bodies(checks.get(i), one, other));
      }
      if (differences.isEmpty() && first.passed() != second.passed()) {
        Side right = first.passed() ? one : other;
        differences.add("passes only on " + right.place().server());
      }
      pairs.add(new Pair(first, second, differences));
    }
    return new SideBySide(List.of(one.place(), other.place()), pairs);
  }

  /** Whether the same came from both for every check, and all of them pass. */
  public boolean right() {
    return pairs.stream().allMatch(pair -> pair.same() && pair.one().passed());
  }

  /** What answers to a change is another thing each time; of a cell only whether it is shown. */
  private static boolean comparable(Check check) {
    return check.isSafe() && check.requests().size() == 1 && check.cell().isEmpty();
  }

  private static List<String> bodies(Check check, Side one, Side other) {
    String path = check.first().ask().path().substring(1);
    AnswerDiff diff = new AnswerDiff(check.manner().varies());
    return one.answers()
        .from(check.name(), URI.create(one.base() + path))
        .flatMap(
            first ->
                other
                    .answers()
                    .from(check.name(), URI.create(other.base() + path))
                    .map(second -> diff.between(first, one.base(), second, other.base())))
        .orElse(List.of());
  }
}

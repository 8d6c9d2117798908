package jollycrate.script;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import jollycrate.app.DataSource;

/**
 * The scripts of a data source beside what its database keeps of them.
 *
 * @param described in the order in which they are applied
 */
public record Scripts(DataSource source, List<Prepared> described, Rows rows) {

  /** Those of a data source, whose database is asked. */
  public static Scripts of(DataSource source, ScriptRun run) {
    return new Scripts(source, Prepared.of(source), run.rows());
  }

  private List<Rows.Row> known() {
    return rows.known().orElse(List.of());
  }

  /** What is noted of one, by its name; one that was moved is known by what it does. */
  public Optional<Rows.Row> row(Prepared script) {
    Set<String> names = described.stream().map(Prepared::name).collect(Collectors.toSet());
    return known().stream()
        .filter(row -> row.script().equals(script.name()))
        .findFirst()
        .or(
            () ->
                known().stream()
                    .filter(row -> row.stage() == Stage.APPLIED && !names.contains(row.script()))
                    .filter(row -> row.digest().equals(script.digest()))
                    .findFirst());
  }

  /** How far one came. */
  public Stage stage(Prepared script) {
    return row(script).map(Rows.Row::stage).orElse(Stage.NONE);
  }

  /** Those that are not applied; one that may be half applied only if its fate was decided. */
  public List<Prepared> pending(HalfApplied choice) {
    boolean decided = choice != HalfApplied.ASK;
    return described.stream()
        .filter(it -> stage(it) == Stage.NONE || decided && stage(it).isHalf())
        .toList();
  }

  /** What was applied that is not described. */
  public List<Rows.Row> others() {
    Set<String> mine =
        described.stream()
            .flatMap(it -> row(it).stream())
            .map(Rows.Row::script)
            .collect(Collectors.toSet());
    return known().stream().filter(row -> !mine.contains(row.script())).toList();
  }
}

package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.host.Fact;
import jollycrate.script.HalfApplied;
import jollycrate.script.Prepared;
import jollycrate.script.Rows;
import jollycrate.script.ScriptWork;
import jollycrate.script.Scripts;
import jollycrate.script.Stage;
import jollycrate.script.Statement;

/** What is done to databases can be done, is what was done before, and can be taken back. */
public final class ScriptRule {
  private ScriptRule() {}

  /**
   * What is foreseen of the scripts of one data source.
   *
   * @param choice what becomes of one that was cut off
   */
  public static List<Finding> look(Scripts scripts, HalfApplied choice) {
    Optional<String> unread = scripts.rows().known().unread();
    if (unread.isPresent()) {
      return List.of(
          Finding.blocker(
              scripts.source().jndiName(),
              "which scripts were applied to its database cannot be told",
              unread.get(),
              scripts.rows().fix()));
    }
    List<Finding> findings = new ArrayList<>();
    for (Prepared script : scripts.described()) {
      findings.addAll(look(scripts, script, choice));
    }
    List<Rows.Row> others = scripts.others();
    if (!others.isEmpty()) {
      findings.add(
          Finding.note(
              scripts.source().jndiName(),
              "its database keeps what this release does not name: "
                  + others.stream().map(Rows.Row::script).collect(Collectors.joining(", "))));
    }
    return findings;
  }

  private static List<Finding> look(Scripts scripts, Prepared script, HalfApplied choice) {
    Optional<String> fault = script.work().unread().or(() -> script.undo().unread());
    if (fault.isPresent()) {
      return List.of(
          Finding.blocker(
              script.name(), "what it does cannot be read", fault.get(), "Fix the file"));
    }
    Stage stage = scripts.stage(script);
    if (stage.isHalf() && choice == HalfApplied.ASK) {
      Rows.Row row = scripts.row(script).orElseThrow();
      return List.of(
          Finding.blocker(
              script.name(),
              "was cut off while it was "
                  + (stage == Stage.BEGUN ? "applied" : "undone")
                  + "; how much of it is in the database is not known",
              row.at() + " by " + row.by(),
              "Look at the database, then deliver with --half-applied done, or --half-applied again"));
    }
    boolean other =
        scripts.row(script).filter(row -> !row.digest().equals(script.digest())).isPresent();
    if (stage == Stage.APPLIED && other) {
      Rows.Row row = scripts.row(script).orElseThrow();
      return List.of(
          Finding.blocker(
              script.name(),
              "was changed since it was applied, and is not applied again",
              "applied " + row.at() + " by " + row.by(),
              "Put it back as it was, and write what is new into a further script"));
    }
    return stage == Stage.APPLIED ? List.of() : pending(script);
  }

  private static Optional<Statement> ownTransaction(ScriptWork work) {
    return work instanceof ScriptWork.Statements statements
        ? statements.all().stream().filter(Statement::controlsTransaction).findFirst()
        : Optional.empty();
  }

  private static List<Finding> pending(Prepared script) {
    List<Finding> findings = new ArrayList<>();
    if (script.work() instanceof Fact.Known<ScriptWork> known
        && known.value() instanceof ScriptWork.Statements statements
        && statements.all().isEmpty()) {
      findings.add(
          Finding.warn(script.name(), "holds no statement", "", "Write one, or remove the file"));
    }
    script
        .work()
        .map(ScriptRule::ownTransaction)
        .orElse(Optional.empty())
        .map(
            control ->
                Finding.warn(
                    script.name(),
                    "begins or ends a transaction by itself, so it is not all or nothing: what it"
                        + " did before a failure stays",
                    script.name() + ":" + control.line() + ": " + control.text(),
                    "Leave that out: each file is one transaction where the database can"))
        .ifPresent(findings::add);
    if (script.undo().map(Optional::isEmpty).orElse(true)) {
      findings.add(
          Finding.warn(
              script.name(),
              "is applied before the switch, and stays even if this delivery is taken back",
              "no 'undo' stands beside it",
              "See that the release that stands works with it too, or write an 'undo'"));
    }
    return findings;
  }
}

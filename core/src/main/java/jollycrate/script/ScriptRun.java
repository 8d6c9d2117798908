package jollycrate.script;

import java.time.Duration;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import jollycrate.host.Content;
import jollycrate.host.Fact;
import jollycrate.host.Host;
import jollycrate.host.Program;
import jollycrate.host.Ran;
import jollycrate.host.ScratchFolder;
import jollycrate.host.Time;
import jollycrate.server.Cause;
import jollycrate.server.Server;
import jollycrate.stock.JdbcProbe;

/**
 * Applies scripts to the database behind a data source, undoes them, and keeps note of it there.
 */
public final class ScriptRun {
  private static final int MOST_LINES = 8;
  private static final int OWN_LENGTH = 8;

  /** What is noted has at most 200 characters. */
  private static final int MOST_TOLD = 180;

  private static final Duration TO_NOTE = Duration.ofSeconds(20);

  /** The shell stays until the program has ended, so that its mark tells that it is under way. */
  private static final String TO_ITS_END = "\"$@\"; exit $?";

  private static final String LOOK = "Look at the database, then deliver again";

  private final JdbcProbe probe;
  private final JdbcProbe.LogIn logIn;
  private final ScriptRecords records;
  private final Time time;
  private final String by;

  /**
   * @param application whose scripts they are
   * @param by the delivery that is noted with each, see {@link #by}
   */
  public ScriptRun(
      JdbcProbe probe, JdbcProbe.LogIn logIn, String application, Time time, String by) {
    this.probe = probe;
    this.logIn = logIn;
    this.records = new ScriptRecords(probe, logIn, application);
    this.time = time;
    this.by = by;
  }

  /** How a delivery is noted: who makes it, to where, and what tells it from every other. */
  public static String by(String person, Server server) {
    String own = UUID.randomUUID().toString().substring(0, OWN_LENGTH);
    String told = person + " to " + server.name();
    return told.substring(0, Math.min(told.length(), MOST_TOLD)) + " (" + own + ")";
  }

  /** What stands among the arguments of programs that apply or undo scripts for a server. */
  static String mark(Server server) {
    return "jolly-script:" + server.folder();
  }

  /** Programs that apply or undo scripts for a server just now, whoever began them. */
  public static Fact<List<Program>> underWay(Host host, Server server) {
    return host.processes().programs(mark(server));
  }

  /** What its database keeps of scripts. */
  public Rows rows() {
    return records.read();
  }

  /**
   * Applies one.
   *
   * @param noted how far it came before
   * @return why it was not applied, or not wholly
   */
  public Optional<Cause> apply(Prepared script, ScriptWork work, Stage noted) {
    ScriptRecords.Turn turn = turn(script.name(), work.digest(), noted, Stage.BEGUN, Stage.APPLIED);
    return carryOut(turn, work, script.script().within())
        .map(failure -> cause(script.name(), failure.after(noted)));
  }

  /** Counts one as applied whose fate was not known. */
  public Optional<Cause> count(Prepared script, Stage noted) {
    ScriptRecords.Turn turn = turn(script.name(), script.digest(), noted, noted, Stage.APPLIED);
    return records.turn(turn, List.of(), TO_NOTE).map(failure -> cause(script.name(), failure));
  }

  private ScriptRecords.Turn turn(
      String script, String digest, Stage noted, Stage during, Stage after) {
    String now = time.now().truncatedTo(ChronoUnit.SECONDS).toString();
    return new ScriptRecords.Turn(script, digest, now, by, noted, during, after);
  }

  private Optional<ScriptRecords.Failure> carryOut(
      ScriptRecords.Turn turn, ScriptWork work, Duration within) {
    if (work instanceof ScriptWork.Statements statements) {
      return records.turn(turn, statements.all(), within);
    }
    ScriptRecords.Turn begin =
        turn(turn.script(), turn.digest(), turn.noted(), turn.noted(), turn.during());
    ScriptRecords.Turn end =
        turn(turn.script(), turn.digest(), turn.during(), turn.during(), turn.after());
    return records
        .turn(begin, List.of(), TO_NOTE)
        .or(() -> run((ScriptWork.Run) work, within))
        .or(() -> records.turn(end, List.of(), TO_NOTE));
  }

  private Optional<ScriptRecords.Failure> run(ScriptWork.Run run, Duration within) {
    try (ScratchFolder folder = probe.scratch()) {
      run.files().forEach((name, bytes) -> folder.put(name, Content.of(bytes), "rwx------"));
      Map<String, String> variables = new HashMap<>();
      variables.put("DATABASE_URL", logIn.source().url());
      variables.put("DATABASE_USER", logIn.source().user());
      variables.put("DATABASE_PASSWORD", logIn.password());
      variables.put("SERVER_FOLDER", probe.server().folder().toString());
      List<String> command =
          new ArrayList<>(List.of("/bin/sh", "-c", TO_ITS_END, mark(probe.server())));
      command.addAll(run.words());
      Ran ran = probe.shielded().run(command, folder.path(), variables, "", within);
      if (ran.exit() == 0) {
        return Optional.empty();
      }
      String how =
          ran.tookTooLong()
              ? "did not end within " + within.toSeconds() + " s"
              : "ended with " + ran.exit();
      return Optional.of(
          new ScriptRecords.Failure(
              0,
              false,
              "'"
                  + String.join(" ", run.words())
                  + "' "
                  + how
                  + "\n"
                  + String.join("\n", ran.lastLines(MOST_LINES))));
    }
  }

  private static Cause cause(String script, ScriptRecords.Failure failure) {
    List<String> lines = failure.words().lines().toList();
    String where = failure.line() > 0 ? script + ":" + failure.line() : "";
    String left =
        failure.undone() ? "; nothing of it is left" : "; some of it may have been applied";
    return new Cause(
        "script '" + script + "' failed: " + (lines.isEmpty() ? "" : lines.get(0)) + left,
        where,
        lines.size() > 1 ? lines.subList(1, lines.size()) : List.of(),
        failure.undone() ? "Fix it, then deliver again" : LOOK,
        -1);
  }

  /**
   * Takes back what was applied, as far as the database says that it was, and by this delivery.
   *
   * @return what is to be told; empty when nothing of it is left
   */
  public Optional<String> undo(Undo undo) {
    String what = "'" + undo.script() + "' of " + undo.source().jndiName();
    Fact<List<Rows.Row>> rows = rows().known();
    if (rows.unread().isPresent()) {
      return Optional.of(
          what + " may have been applied, which cannot be told: " + rows.unread().get());
    }
    Stage stage =
        rows.orElse(List.of()).stream()
            .filter(row -> row.script().equals(undo.script()))
            .filter(row -> row.by().equals(undo.by()))
            .map(Rows.Row::stage)
            .findFirst()
            .orElse(Stage.NONE);
    if (stage == Stage.NONE || stage == undo.noted() && undo.counted()) {
      return Optional.empty();
    }
    if (undo.counted()) {
      return records
          .turn(turn(undo, stage, stage, undo.noted()), List.of(), TO_NOTE)
          .map(failure -> what + " counts as applied still: " + failure.words());
    }
    if (undo.work().isEmpty()) {
      return Optional.of(
          stage == Stage.APPLIED
              ? what + " was applied and stays: nothing undoes it"
              : what + " was cut off while it was applied; what of it is there stays");
    }
    return carryOut(turn(undo, stage, Stage.UNDOING, Stage.NONE), undo.work().get(), undo.within())
        .map(failure -> what + " was applied, and its undo failed: " + told(failure));
  }

  private ScriptRecords.Turn turn(Undo undo, Stage noted, Stage during, Stage after) {
    return turn(undo.script(), undo.digest(), noted, during, after);
  }

  private static String told(ScriptRecords.Failure failure) {
    String at = failure.line() > 0 ? "line " + failure.line() + ": " : "";
    return at + failure.words().lines().findFirst().orElse("");
  }
}

package jollycrate.script;

import java.net.URLDecoder;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.host.Fact;
import jollycrate.host.Ran;
import jollycrate.stock.ConnectionTrial;
import jollycrate.stock.JdbcProbe;

/** What a database keeps of the scripts that one application applied to it. */
final class ScriptRecords {
  private static final String PROGRAM = "jollycrate.probe.ScriptProbe";
  private static final int WORDS_OF_A_ROW = 6;

  private final JdbcProbe probe;
  private final JdbcProbe.LogIn logIn;
  private final String application;

  ScriptRecords(JdbcProbe probe, JdbcProbe.LogIn logIn, String application) {
    this.probe = probe;
    this.logIn = logIn;
    this.application = application;
  }

  /** What is noted; of a database that is not there yet nothing is. */
  Rows read() {
    ConnectionTrial.Result told =
        new ConnectionTrial(probe).read(PROGRAM, logIn, "list\n" + escaped(application));
    return switch (told.outcome()) {
      case CONNECTED -> new Rows(Fact.known(rows(told.detail())), "");
      case NOT_THERE_YET -> new Rows(Fact.known(List.of()), "");
      case IN_USE ->
          unread(
              "its file is open in another process",
              "Let several processes open it, as ;AUTO_SERVER=TRUE in a URL of H2 does, or stop"
                  + " the server first");
      case UNTRIED -> unread("there is no Java there yet that could ask", "Start the server once");
      case CUT_OFF ->
          unread("its file was cut off while it was written", "Start the server, which repairs it");
      case NO_ROW, FAILED -> unread(told.message() + ": " + told.detail(), told.fix());
    };
  }

  private static Rows unread(String why, String fix) {
    return new Rows(Fact.unknown(why), fix);
  }

  private static List<Rows.Row> rows(String told) {
    List<Rows.Row> rows = new ArrayList<>();
    for (String line : told.split("\n")) {
      String[] words = line.split("\t");
      if (words.length == WORDS_OF_A_ROW) {
        rows.add(
            new Rows.Row(
                unescaped(words[1]),
                unescaped(words[2]),
                Stage.of(unescaped(words[3])),
                unescaped(words[4]),
                unescaped(words[5])));
      }
    }
    return List.copyOf(rows);
  }

  /**
   * A change of what is noted, with what is done meanwhile.
   *
   * @param by who makes it
   * @param noted stage that must be noted before
   * @param during stage while statements are carried out that cannot be undone as one
   * @param after stage when all of them are
   */
  record Turn(
      String script, String digest, String at, String by, Stage noted, Stage during, Stage after) {}

  /**
   * Why it failed.
   *
   * @param line of the statement that did; 0 when none did
   * @param undone whether nothing of it is left
   */
  record Failure(int line, boolean undone, String words) {
    /** The same of one of which something may have been left before. */
    Failure after(Stage noted) {
      return new Failure(line, undone && !noted.isHalf(), words);
    }
  }

  /** Carries a change out; empty when that came about. */
  Optional<Failure> turn(Turn turn, List<Statement> statements, Duration limit) {
    StringBuilder input = new StringBuilder("turn");
    List<String> words =
        List.of(
            application,
            turn.script(),
            turn.digest(),
            turn.at(),
            turn.by(),
            turn.noted().noted(),
            turn.during().noted(),
            turn.after().noted());
    words.forEach(word -> input.append('\n').append(escaped(word)));
    statements.forEach(
        it -> input.append("\nstatement\t" + it.line() + "\t").append(escaped(it.text())));
    Ran ran =
        probe
            .shielded()
            .run(
                List.of(PROGRAM, ScriptRun.mark(probe.server())),
                logIn,
                logIn.source().url(),
                input.toString(),
                limit);
    if (ran.tookTooLong()) {
      return failed(0, false, "it did not end within " + limit.toSeconds() + " s");
    }
    String[] told = ran.output().strip().split("[\t\n]");
    return switch (told[0]) {
      case "turned" -> Optional.empty();
      case "other" ->
          failed(
              0,
              true,
              "another delivery works on it, or has just done so: it is noted there as '"
                  + (told.length > 1 ? unescaped(told[1]) : "")
                  + "'");
      case "at" ->
          failed(Integer.parseInt(told[1]), Boolean.parseBoolean(told[2]), told[told.length - 1]);
      case "sql", "driver" -> failed(0, true, told[told.length - 1]);
      default -> failed(0, false, (ran.output() + ran.errors()).strip());
    };
  }

  private static Optional<Failure> failed(int line, boolean undone, String words) {
    return Optional.of(new Failure(line, undone, words));
  }

  private static String escaped(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8);
  }

  private static String unescaped(String text) {
    return URLDecoder.decode(text, StandardCharsets.UTF_8);
  }
}

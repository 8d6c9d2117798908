package jollycrate.stock;

import java.time.Duration;
import java.util.List;
import java.util.regex.Pattern;
import jollycrate.app.DataSource;
import jollycrate.host.Ran;

/**
 * Opens a connection in a process of its own, with the server's Java, driver and working folder. It
 * never makes a database: where a URL would, it is changed so that it does not.
 */
public final class ConnectionTrial {
  private static final Duration LIMIT = Duration.ofSeconds(20);

  /**
   * Whoever lets an application wait long for a connection has a database that is slow to reach.
   */
  private static final int PATIENCE = 2;

  private static final Pattern UNREACHED =
      Pattern.compile("ConnectException|UnknownHostException|Connection refused|timed out");
  private static final String PROBE = "jollycrate.probe.ConnectProbe";

  /** Ends what took several lines. */
  private static final String LAST = "end";

  /** How a trial ended. */
  public enum Outcome {
    CONNECTED,
    /** Connected, and what was asked for has no row. */
    NO_ROW,
    /** There is no Java yet that could try. */
    UNTRIED,
    /** A database file that a first connection makes. */
    NOT_THERE_YET,
    /** A database file that one process holds open. */
    IN_USE,
    /**
     * A database file that was cut off while it was written; only a writing connection repairs it.
     */
    CUT_OFF,
    FAILED
  }

  /**
   * What a trial told.
   *
   * @param detail product and version, or the driver's own words
   */
  public record Result(Outcome outcome, String message, String detail, String fix) {}

  private final JdbcProbe probe;

  /** By a program that runs there. */
  public ConnectionTrial(JdbcProbe probe) {
    this.probe = probe;
  }

  /** Tries to connect; the password goes over standard input. */
  public Result connect(DataSource source, String password) {
    return ask(source, password, "");
  }

  /**
   * Asks for the first value of the first row; the connection only reads.
   *
   * @param query in one line; empty: nothing is asked, only a connection made
   */
  public Result ask(DataSource source, String password, String query) {
    return read(PROBE, new JdbcProbe.LogIn(source, password), query);
  }

  /**
   * Runs a program of ours that only reads; of what it read, its own words are the detail.
   *
   * @param input what it is told on standard input
   */
  public Result read(String program, JdbcProbe.LogIn logIn, String input) {
    HarmlessUrl url = HarmlessUrl.of(logIn.source().url());
    if (url.file().filter(file -> !probe.isThere(file)).isPresent()) {
      return new Result(Outcome.NOT_THERE_YET, "", "", "");
    }
    if (!probe.hasJava()) {
      return new Result(Outcome.UNTRIED, "", "", "");
    }
    boolean elsewhere = url.url().contains("//");
    Duration limit = LIMIT.plus(logIn.source().patience().multipliedBy(PATIENCE));
    Ran ran = probe.run(List.of(program), logIn, url.url(), input, limit);
    if (ran.tookTooLong()) {
      return failed(
          "no connection came about within " + limit.toSeconds() + " s",
          "the driver was still trying",
          (elsewhere
                  ? "Look whether the database is up and a firewall lets the server through"
                  : "It needs no other machine, so this one is busy: try again")
              + ", or wait longer: pool = { wait = \"60s\" } of [datasource.\""
              + logIn.source().jndiName()
              + "\"]");
    }
    return understood(ran);
  }

  private static Result understood(Ran ran) {
    String[] told = ran.output().strip().split("\t", 4);
    if (told[0].equals("ok") && told.length > 2) {
      return new Result(Outcome.CONNECTED, "", told[1] + " " + told[2], "");
    }
    if (told[0].equals("row")) {
      return new Result(Outcome.CONNECTED, "", told.length > 1 ? told[1] : "", "");
    }
    if ((told[0].equals("script") || told[0].equals(LAST))
        && ran.output().stripTrailing().endsWith(LAST)) {
      return new Result(Outcome.CONNECTED, "", ran.output(), "");
    }
    if (told[0].equals("none")) {
      return new Result(Outcome.NO_ROW, "", "", "");
    }
    if (told[0].equals("sql") && told.length > 3) {
      return sql(told[1], told[2], told[3]);
    }
    String words = told.length > 1 ? told[1] : (ran.output() + ran.errors()).strip();
    return failed("the driver cannot be used", words, "Fix 'driver', 'driver-class' or 'url'");
  }

  private static Result sql(String state, String code, String words) {
    if (code.equals("90146") || words.contains("Database does not exist")) {
      return new Result(Outcome.NOT_THERE_YET, "", words, "");
    }
    if (code.equals("90097")) {
      return new Result(Outcome.CUT_OFF, "", words, "");
    }
    if (code.equals("90020")) {
      return new Result(Outcome.IN_USE, "", words, "");
    }
    if (state.startsWith("08") || UNREACHED.matcher(words).find()) {
      return failed("the database does not answer", words, "Start the database, or fix 'url'");
    }
    if (state.startsWith("28")) {
      return failed(
          "the database does not accept this user and password",
          words,
          "Fix 'user', or what 'password' refers to");
    }
    if (state.startsWith("42")) {
      return failed(
          "the query is not accepted", words, "Fix 'query', or look whether its tables are there");
    }
    if (state.startsWith("25")) {
      return failed("the query would change something", words, "Ask for something instead");
    }
    if (state.equals("57014")) {
      return failed("the query takes too long", words, "Ask for less");
    }
    if (state.startsWith("3D")) {
      return failed("there is no such database", words, "Make it, or fix 'url'");
    }
    return failed("no connection came about", words, "Fix 'url', 'user' or 'password'");
  }

  private static Result failed(String message, String detail, String fix) {
    return new Result(Outcome.FAILED, message, detail, fix);
  }
}

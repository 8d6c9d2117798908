package jollycrate.stock;

import java.io.File;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.regex.Pattern;
import jollycrate.app.DataSource;
import jollycrate.artifact.ClassPathPlace;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Host;
import jollycrate.host.Ran;
import jollycrate.server.Server;

/**
 * Opens a connection in a process of its own, with the server's Java, driver and working folder. It
 * never makes a database: where a URL would, it is changed so that it does not.
 */
public final class ConnectionTrial {
  private static final Duration LIMIT = Duration.ofSeconds(20);
  private static final Pattern UNREACHED =
      Pattern.compile("ConnectException|UnknownHostException|Connection refused|timed out");
  private static final String PROBE = "jollycrate.probe.ConnectProbe";
  private static final String PROBE_FILE = "jollycrate/probe/ConnectProbe.class";

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

  private final Host host;
  private final Server server;
  private final Path from;

  /**
   * @param from folder where the application works, or will
   */
  public ConnectionTrial(Host host, Server server, Path from) {
    this.host = host;
    this.server = server;
    this.from = from;
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
    HarmlessUrl url = HarmlessUrl.of(source.url());
    if (url.file().filter(file -> !host.files().facts(from.resolve(file)).exists()).isPresent()) {
      return new Result(Outcome.NOT_THERE_YET, "", "", "");
    }
    if (server.runtime().supply().isPresent()) {
      return new Result(Outcome.UNTRIED, "", "", "");
    }
    return host.here()
        ? connect(source, password, probe() + File.pathSeparator + source.driver(), url, query)
        : connectThere(source, password, url, query);
  }

  /** What it needs is put there in a folder of nobody else, which goes again. */
  private Result connectThere(DataSource source, String password, HarmlessUrl url, String query) {
    String made = run(List.of("mktemp", "-d"), "").output().strip();
    if (!made.startsWith("/")) {
      return failed("nothing can be tried", "'" + host.name() + "' makes no folder for it", "");
    }
    Path folder = Path.of(made);
    try {
      Access access = host.files().facts(folder).access().with("rw-------");
      Path driver = folder.resolve("driver.jar");
      Path archive = folder.resolve("probe.jar");
      host.files().put(driver, Content.of(source.driver()), access);
      host.files().put(archive, Content.of(probe()), access);
      return connect(source, password, archive + ":" + driver, url, query);
    } finally {
      host.files().deleteTree(folder);
    }
  }

  private Ran run(List<String> command, String input) {
    return host.processes().run(command, from, server.runtime().environment(), input, LIMIT);
  }

  private static Path probe() {
    return ClassPathPlace.of(PROBE_FILE);
  }

  private Result connect(
      DataSource source, String password, String classPath, HarmlessUrl url, String query) {
    List<String> command =
        List.of(
            server.runtime().javaProgram().toString(),
            "-XX:TieredStopAtLevel=1",
            "-XX:+UseSerialGC",
            "-Dderby.stream.error.file=/dev/null",
            "-cp",
            classPath,
            PROBE);
    String input =
        String.join(
                "\n", source.driverClass().orElse(""), url.url(), source.user(), password, query)
            + "\n";
    Ran ran = run(command, input);
    if (ran.exit() == -1) {
      return failed(
          "no connection came about within " + LIMIT.toSeconds() + " s",
          "the driver was still trying",
          "Look whether the database is up and a firewall lets the server through");
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

package jollycrate.stock;

import java.io.File;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.DataSource;
import jollycrate.artifact.ClassPathPlace;
import jollycrate.host.Account;
import jollycrate.host.Content;
import jollycrate.host.Host;
import jollycrate.host.Ran;
import jollycrate.host.ScratchFolder;
import jollycrate.server.Server;

/**
 * Runs a small program of ours that speaks to a database, on the server's machine, with its Java
 * and driver and as the one who owns its folder.
 *
 * @param from folder where the application works, or will once it is made
 * @param alone whether a Ctrl-C in our terminal does not reach what is run
 */
public record JdbcProbe(Host host, Server server, Path from, boolean alone) {
  private static final List<String> IN_A_SESSION_OF_ITS_OWN = List.of("setsid", "-w");
  private static final List<String> OPTIONS =
      List.of("-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Dderby.stream.error.file=/dev/null");
  private static final String ARCHIVE_HOLDS = "jollycrate/probe/ConnectProbe.class";

  /** A data source, and what stands behind its password. */
  public record LogIn(DataSource source, String password) {}

  /** From a server's machine. */
  public JdbcProbe(Host host, Server server, Path from) {
    this(host, server, from, false);
  }

  /** The same, whose programs are not ended when somebody ends us. */
  public JdbcProbe shielded() {
    return new JdbcProbe(host, server, from, true);
  }

  /** Whether there is a Java there by now that could run it. */
  public boolean hasJava() {
    return server.runtime().supply().isEmpty();
  }

  /** Whether a file is there, named from where the application works. */
  boolean isThere(Path file) {
    return host.files().facts(from.resolve(file)).exists();
  }

  /**
   * Runs one; the password goes over standard input.
   *
   * @param words its class and arguments
   * @param url where to connect to
   * @param input what follows on standard input
   * @param limit it is ended when it takes longer
   */
  public Ran run(List<String> words, LogIn logIn, String url, String input, Duration limit) {
    String all =
        String.join(
                "\n",
                logIn.source().driverClass().orElse(""),
                url,
                logIn.source().user(),
                logIn.password(),
                input)
            + "\n";
    Path archive = ClassPathPlace.of(ARCHIVE_HOLDS);
    Path driver = logIn.source().driver();
    boolean readable = host.here() && account().isEmpty();
    boolean works = host.files().facts(from).isFolder();
    if (readable && works) {
      return java(words, archive + File.pathSeparator + driver, from, all, limit);
    }
    try (ScratchFolder scratch = scratch()) {
      String classPath = archive + File.pathSeparator + driver;
      if (!readable) {
        classPath =
            scratch.put("probe.jar", Content.of(archive), "rw-------")
                + ":"
                + scratch.put("driver.jar", Content.of(driver), "rw-------");
      }
      return java(words, classPath, works ? from : scratch.path(), all, limit);
    }
  }

  /** Where the application does not work yet, a relative file in a URL stands nowhere. */
  private Ran java(
      List<String> words, String classPath, Path folder, String input, Duration limit) {
    List<String> command = new ArrayList<>(List.of(server.runtime().javaProgram().toString()));
    command.addAll(OPTIONS);
    command.addAll(List.of("-cp", classPath));
    command.addAll(words);
    return run(command, folder, Map.of(), input, limit);
  }

  /** A folder there for the time being, for whoever works there. */
  public ScratchFolder scratch() {
    return ScratchFolder.make(host, account());
  }

  /**
   * Runs any program there.
   *
   * @param more variables besides those of the server
   */
  public Ran run(
      List<String> command, Path folder, Map<String, String> more, String input, Duration limit) {
    Optional<Account> account = account();
    Map<String, String> environment = new HashMap<>(server.runtime().environment());
    account
        .map(Account::variables)
        .orElse(Map.of())
        .forEach((name, value) -> environment.computeIfPresent(name, (is, ours) -> value));
    environment.putAll(more);
    List<String> all = new ArrayList<>(alone && host.here() ? IN_A_SESSION_OF_ITS_OWN : List.of());
    all.addAll(Account.running(account, command));
    return host.processes().run(all, folder, environment, input, limit);
  }

  private Optional<Account> account() {
    return host.processes().accountIn(server.folder());
  }
}

package jollycrate.ssh;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import jollycrate.file.SmallFile;
import jollycrate.file.Trees;
import jollycrate.host.HostException;
import jollycrate.host.Quote;
import jollycrate.host.Ran;
import jollycrate.host.Reach;
import jollycrate.host.Words;

/**
 * A connection to a machine, and what runs on it. Its first process of {@code ssh} logs in; those
 * that follow, also of later commands, go by the same connection where there is a socket for it.
 */
final class Connection {
  private static final Duration LOGS_IN_WITHIN = Duration.ofSeconds(60);
  private static final Duration GREETS_WITHIN = Duration.ofSeconds(15);
  private static final Duration ENDS_WITHIN = Duration.ofSeconds(2);
  private static final Duration STREAMS_WITHIN = Duration.ofSeconds(15);
  private static final Pattern NOT_OPENED = Pattern.compile("open failed: (.+)");
  private static final int MOST_LOG = 1 << 20;
  private static final String LATE = "timed out";
  private static final String NO_MORE = "Session open refused by peer";
  private static final String ANY_NAME = "shared";

  private final Reach reach;
  private final Destination destination;
  private final Optional<Path> socket;
  private final String before;

  /** Where it goes; nothing is connected yet. */
  Connection(Reach reach, Destination destination) {
    this.reach = reach;
    this.destination = destination;
    this.before = reach.sudo().map(user -> "sudo -n -u " + Quote.word(user) + " -- ").orElse("");
    this.socket = destination.sharesByItself() ? Optional.empty() : socket(reach, destination);
  }

  private static Optional<Path> socket(Reach reach, Destination destination) {
    return reach.keep().isZero()
        ? SharedSockets.alone()
        : SharedSockets.of(destination).or(SharedSockets::alone);
  }

  /**
   * Logs in, or goes on with a connection that was kept, and runs a script.
   *
   * @throws jollycrate.host.UnreachableException when it is not reached
   * @throws NoShell when no shell came
   */
  RemoteProgram logIn(String text) throws IOException {
    Script script = Script.of(text);
    Path log = Trees.temporary().resolve("log");
    Optional<Answers> answers = Answers.of(reach);
    List<String> command = OpenSsh.to(destination, sharing());
    command.addAll(asking());
    command.addAll(List.of("-o", "LogLevel=VERBOSE", "-E", log.toString(), "--"));
    command.addAll(List.of(destination.alias(), script.command(before)));
    boolean goesOn = socket.filter(Files::exists).isPresent();
    RemoteProgram started = new RemoteProgram(OpenSsh.start(command, answers));
    Words errors = Words.of(started.errors());
    try (Limit limit =
        Limit.of(started.process(), LOGS_IN_WITHIN, () -> loggedIn(log), GREETS_WITHIN)) {
      started.tell(script.bytes());
      Optional<String> greeting = script.awaitedIn(started.out());
      if (greeting.isPresent()) {
        boolean failed = started.exitWithin(ENDS_WITHIN) == OpenSsh.FAILED;
        answers
            .flatMap(Answers::unread)
            .ifPresent(
                why -> {
                  throw why;
                });
        if (limit.isOver() ? !goesOn && !loggedIn(log) : failed) {
          throw new Refusal(reach, destination).of(limit.isOver() ? LATE : text(log), answers);
        }
        throw NoShell.of(greeting.get() + errors.text() + text(log), limit.isOver());
      }
      keep(log);
      return started;
    } finally {
      Trees.discard(log.getParent());
    }
  }

  private String[] sharing() {
    return socket
        .map(
            path ->
                new String[] {
                  "ControlMaster=auto",
                  "ControlPath=" + path,
                  "ControlPersist=" + Math.max(1, reach.keep().toSeconds())
                })
        .orElseGet(() -> new String[0]);
  }

  /** Without a password to give, none is tried: an empty one would count as a failed try there. */
  private List<String> asking() {
    boolean tries = reach.password().isPresent();
    boolean asks = tries || reach.keyPassword().isPresent();
    return OpenSsh.options(
        "BatchMode=" + (asks ? "no" : "yes"),
        "PasswordAuthentication=" + (tries ? "yes" : "no"),
        "KbdInteractiveAuthentication=" + (tries ? "yes" : "no"));
  }

  /** What cannot be read says nothing. */
  private static String text(Path log) {
    try {
      return SmallFile.text(log, MOST_LOG);
    } catch (IOException unread) {
      return "";
    }
  }

  private static boolean loggedIn(Path log) {
    return text(log).contains(OpenSsh.LOGGED_IN);
  }

  /** Who logged in writes into his log as long as the connection is there. */
  private void keep(Path log) throws IOException {
    if (socket.isPresent() && loggedIn(log)) {
      Files.move(log, SharedSockets.log(socket.get()), StandardCopyOption.REPLACE_EXISTING);
    }
  }

  /** No shell came up; the message is what was said instead. */
  static final class NoShell extends IOException {
    private static final long serialVersionUID = 1L;

    private NoShell(String said) {
      super(said);
    }

    private static NoShell of(String said, boolean late) {
      String hangs = late ? "what its log-in shell starts does not end. " : "";
      return new NoShell((hangs + OpenSsh.words(said)).strip());
    }
  }

  /**
   * A shell that runs a script on the same connection, or on one of its own where no more may share
   * it (MaxSessions in sshd_config(5)).
   *
   * @throws NoShell when none came
   */
  RemoteProgram program(String text) throws IOException {
    Script script = Script.of(text);
    try {
      return begun(script, socket);
    } catch (NoShell e) {
      if (socket.isPresent() && e.getMessage().contains(NO_MORE)) {
        return begun(script, Optional.empty());
      }
      throw e;
    }
  }

  private RemoteProgram begun(Script script, Optional<Path> shared) throws IOException {
    RemoteProgram started =
        new RemoteProgram(client(shared, List.of(), List.of(script.command(before))));
    try (Limit limit = Limit.of(started.process(), GREETS_WITHIN)) {
      started.tell(script.bytes());
      Optional<String> greeting = script.awaitedIn(started.out());
      Optional<String> errors = script.awaitedIn(started.errors());
      if (greeting.isPresent() || errors.isPresent()) {
        started.end();
        throw NoShell.of(greeting.orElse("") + errors.orElse(""), limit.isOver());
      }
      return started;
    }
  }

  private Process client(Optional<Path> shared, List<String> options, List<String> command)
      throws IOException {
    List<String> whole = shared.map(OpenSsh::by).orElseGet(this::unshared);
    whole.addAll(options);
    whole.addAll(List.of("--", shared.isPresent() ? ANY_NAME : destination.alias()));
    whole.addAll(command);
    return OpenSsh.start(whole, shared.isPresent() ? Optional.empty() : Answers.of(reach));
  }

  /** Where the user's configuration shares connections, so do these. */
  private List<String> unshared() {
    List<String> whole = OpenSsh.to(destination, "LogLevel=ERROR");
    whole.addAll(asking());
    if (socket.isPresent()) {
      whole.addAll(OpenSsh.options("ControlPath=none"));
    }
    return whole;
  }

  /**
   * Runs a script to its end, or to its limit.
   *
   * @throws IOException when the connection was cut before it ended
   */
  Ran run(String script, String input, Duration limit) throws IOException {
    long begun = System.nanoTime();
    String end = Shell.mark();
    RemoteProgram program = program("(\n" + script + "\n)\nprintf '%s %s' " + end + " $? >&2\n");
    try {
      Words output = Words.of(program.out());
      Words errors = Words.of(program.errors());
      Words.inBackground(() -> program.tellAll(input));
      int exit = program.exitWithin(limit.plus(ENDS_WITHIN));
      String said = errors.text();
      int at = said.lastIndexOf(end);
      if (exit >= 0 && at < 0) {
        throw new IOException("the connection was cut before it ended");
      }
      boolean late = System.nanoTime() - begun >= limit.toNanos();
      int code = at < 0 ? -1 : Integer.parseInt(said.substring(at + end.length()).strip());
      return new Ran(
          code != 0 && late ? -1 : code, output.text(), at < 0 ? said : said.substring(0, at));
    } finally {
      program.end();
    }
  }

  /**
   * A client that passes its input on to an address as the machine understands it, and prints what
   * comes back; it says a lot about how it does so.
   *
   * @param address {@code host:port}
   */
  Process stream(String address) throws IOException {
    return client(socket, List.of("-vv", "-W", address), List.of());
  }

  /** Where the log of the connection ends now. */
  long logEnd() {
    return socket.map(path -> (long) text(SharedSockets.log(path)).length()).orElse(0L);
  }

  /**
   * Why no stream was opened, as the SSH server there says.
   *
   * @param said by the client
   * @param since end of the log before
   */
  String whyNotOpened(String address, String said, long since) {
    String log = socket.map(path -> text(SharedSockets.log(path))).orElse("");
    Set<String> reasons = reasons(said + log.substring((int) Math.min(since, log.length())));
    return reasons.size() == 1 ? reasons.iterator().next() : askedAlone(address);
  }

  private static Set<String> reasons(String said) {
    return NOT_OPENED
        .matcher(said)
        .results()
        .map(found -> found.group(1))
        .collect(Collectors.toSet());
  }

  /** By a connection of its own, where the one that is shared says too little. */
  private String askedAlone(String address) {
    List<String> command = OpenSsh.to(destination, "ControlPath=none", "BatchMode=yes");
    command.addAll(List.of("-W", address, "--", destination.alias()));
    try {
      Ran ran = OpenSsh.run(command, STREAMS_WITHIN);
      return reasons(ran.errors()).stream().findFirst().orElse("");
    } catch (IOException e) {
      return "";
    } catch (HostException tooLong) {
      return LATE;
    }
  }
}

package jollycrate.ssh;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.Ran;

/**
 * Runs the user's own OpenSSH client. What {@code ssh_config(5)} says holds, but for what would ask
 * somebody, run something else, or change files and agents of the user.
 */
final class OpenSsh {
  /** What is said where there is none. */
  static final String MISSING =
      "there is no 'ssh' on this machine, by which others are reached. Install OpenSSH's client (on"
          + " Debian and Ubuntu: apt install openssh-client)";

  /** Begins the line by which it says that it logged in. */
  static final String LOGGED_IN = "Authenticated to ";

  private static final Pattern CHATTER =
      Pattern.compile(LOGGED_IN + "|Transferred: sent |Bytes per second: ");

  /** Exit code of {@code ssh} when it failed itself. */
  static final int FAILED = 255;

  private static final List<String> ALWAYS =
      options(
          "StrictHostKeyChecking=yes",
          "UpdateHostKeys=no",
          "AddKeysToAgent=no",
          "PermitLocalCommand=no",
          "RemoteCommand=none",
          "ClearAllForwardings=yes",
          "ForwardAgent=no",
          "ForwardX11=no",
          "NumberOfPasswordPrompts=1",
          "ConnectTimeout=10",
          "ServerAliveInterval=5",
          "ServerAliveCountMax=4",
          "EscapeChar=none");

  /**
   * Later clients of a shared connection read no configuration and connect nowhere by themselves.
   */
  private static final List<String> SHARED =
      options("ControlMaster=no", "ProxyCommand=false", "EscapeChar=none", "LogLevel=ERROR");

  private static final Optional<Path> SETSID =
      Stream.of("/usr/bin/setsid", "/bin/setsid")
          .map(Path::of)
          .filter(Files::isExecutable)
          .findFirst();

  private OpenSsh() {}

  static List<String> options(String... values) {
    return Stream.of(values).flatMap(value -> Stream.of("-o", value)).toList();
  }

  /**
   * A command line that goes to a destination by the user's configuration; its alias comes last.
   */
  static List<String> to(Destination destination, String... more) {
    List<String> command = new ArrayList<>(List.of("ssh", "-T"));
    command.addAll(destination.arguments());
    command.addAll(options(more));
    command.addAll(ALWAYS);
    return command;
  }

  /** A command line that goes by a connection which is there already. */
  static List<String> by(Path socket) {
    List<String> command = new ArrayList<>(List.of("ssh", "-T", "-F", "none"));
    command.addAll(List.of("-S", socket.toString()));
    command.addAll(SHARED);
    return command;
  }

  /**
   * Starts it apart from the terminal: nobody is asked there, and an interrupt that is meant for
   * this program does not cut its lines.
   */
  static Process start(List<String> command, Optional<Answers> answers) throws IOException {
    List<String> apart = new ArrayList<>();
    SETSID.map(Path::toString).ifPresent(apart::add);
    apart.addAll(command);
    ProcessBuilder builder = new ProcessBuilder(apart);
    builder.environment().put("SSH_ASKPASS_REQUIRE", "never");
    answers.ifPresent(given -> given.describe(builder.environment()));
    Process process = builder.start();
    answers.ifPresent(given -> given.until(process));
    return process;
  }

  /**
   * Runs one of its programs to the end.
   *
   * @throws IOException when it is not there
   * @throws HostException when it does not end in time
   */
  static Ran run(List<String> command, Duration limit) throws IOException {
    String program = command.get(0);
    if (!isHere(program)) {
      throw new IOException("there is no '" + program + "'");
    }
    Path folder = Path.of("").toAbsolutePath();
    Ran ran = Host.local().processes().run(command, folder, System.getenv(), "", limit);
    if (ran.tookTooLong()) {
      throw new HostException("'" + program + "' did not end within " + limit.toSeconds() + " s");
    }
    return ran;
  }

  /** What was said, without what it says when all is well, in one line. */
  static String words(String said) {
    return said.lines()
        .map(String::strip)
        .filter(line -> !line.isEmpty() && !CHATTER.matcher(line).lookingAt())
        .collect(Collectors.joining("; "));
  }

  /** Whether there is one. */
  static boolean isHere() {
    return isHere("ssh");
  }

  private static boolean isHere(String program) {
    return Stream.of(System.getenv().getOrDefault("PATH", "").split(":"))
        .filter(folder -> !folder.isEmpty())
        .anyMatch(folder -> Files.isExecutable(Path.of(folder, program)));
  }
}

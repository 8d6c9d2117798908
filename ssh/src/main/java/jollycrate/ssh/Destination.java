package jollycrate.ssh;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.host.HostException;
import jollycrate.host.Ran;
import jollycrate.host.Reach;
import jollycrate.host.UnreachableException;

/** Where a connection goes, as {@code ssh -G} reports it from {@code ssh_config(5)}. */
final class Destination {
  private static final Pattern TARGET =
      Pattern.compile("(?:ssh://)?(?:([^@/]+)@)?(\\[[^]]+]|[^:/@]+)(?::(\\d{1,5}))?");

  private static final Duration REPORTS_WITHIN = Duration.ofSeconds(10);
  private static final int DEFAULT_PORT = 22;
  private static final String NONE = "none";
  private final List<String> arguments;
  private final String alias;
  private final String report;
  private final Map<String, List<String>> values;

  private Destination(List<String> arguments, String alias, String report) {
    this.arguments = arguments;
    this.alias = alias;
    this.report = report;
    this.values = new HashMap<>();
    report
        .lines()
        .map(line -> line.split(" ", 2))
        .filter(words -> words.length == 2)
        .forEach(
            words ->
                values
                    .computeIfAbsent(words[0].toLowerCase(Locale.ENGLISH), k -> new ArrayList<>())
                    .add(words[1]));
  }

  /**
   * What a target means.
   *
   * @throws UnreachableException when there is no {@code ssh}, or it cannot read its configuration
   */
  static Destination of(Reach reach) {
    Matcher parts = TARGET.matcher(reach.ssh());
    if (!parts.matches() || parts.group(2).startsWith("-")) {
      throw new UnreachableException(
          "Cannot reach '" + reach.ssh() + "': write an alias, user@name or user@name:port");
    }
    List<String> arguments = new ArrayList<>();
    reach.config().ifPresent(file -> arguments.addAll(List.of("-F", file.toString())));
    Optional.ofNullable(parts.group(1)).ifPresent(user -> arguments.addAll(List.of("-l", user)));
    Optional.ofNullable(parts.group(3)).ifPresent(port -> arguments.addAll(List.of("-p", port)));
    String alias = parts.group(2).replaceAll("[\\[\\]]", "");
    String begin = "Cannot reach '" + reach.name() + "': ";
    Ran ran = reported(begin, arguments, alias);
    if (ran.exit() != 0) {
      throw new UnreachableException(begin + "ssh says '" + ran.errors().strip() + "'");
    }
    return new Destination(List.copyOf(arguments), alias, ran.output());
  }

  private static Ran reported(String begin, List<String> arguments, String alias) {
    List<String> command = new ArrayList<>(List.of("ssh", "-G"));
    command.addAll(arguments);
    command.addAll(List.of("--", alias));
    try {
      return OpenSsh.run(command, REPORTS_WITHIN);
    } catch (IOException noSsh) {
      throw new UnreachableException(begin + OpenSsh.MISSING);
    } catch (HostException failed) {
      throw new UnreachableException(begin + failed.getMessage());
    }
  }

  /** What {@code ssh} is given to go there, but for the alias. */
  List<String> arguments() {
    return arguments;
  }

  /** The last argument of {@code ssh}: a name of its configuration, or of a machine. */
  String alias() {
    return alias;
  }

  /** Everything that {@code ssh -G} prints; another configuration has another one. */
  String report() {
    return report;
  }

  private Optional<String> value(String key) {
    return values.getOrDefault(key, List.of()).stream()
        .findFirst()
        .filter(value -> !value.equals(NONE));
  }

  /** Name or address to connect to. */
  String hostName() {
    return value("hostname").orElse(alias);
  }

  int port() {
    return value("port").map(Integer::parseInt).orElse(DEFAULT_PORT);
  }

  String user() {
    return value("user").orElse(System.getProperty("user.name"));
  }

  /** The name by which known_hosts has its key. */
  String keptName() {
    return value("hostkeyalias")
        .orElse(port() == DEFAULT_PORT ? hostName() : "[" + hostName() + "]:" + port());
  }

  /** Hosts through which it is reached, as ProxyJump has them. */
  Optional<String> jump() {
    return value("proxyjump");
  }

  /** Whether the user's configuration shares connections by itself. */
  boolean sharesByItself() {
    return value("controlpath").isPresent()
        && value("controlmaster").filter("auto"::equals).isPresent();
  }

  /** Files of known keys, those of the user first. */
  List<Path> knownHosts() {
    return Stream.of("userknownhostsfile", "globalknownhostsfile").flatMap(this::files).toList();
  }

  /**
   * The file of known keys that the user adds to.
   *
   * @throws HostException when the configuration names none, or one for each machine
   */
  Path ownKnownHosts() {
    return files("userknownhostsfile")
        .findFirst()
        .filter(file -> !file.toString().contains("%"))
        .orElseThrow(
            () ->
                new HostException(
                    "Cannot trust a key: UserKnownHostsFile of your SSH configuration names no file"
                        + " that it could be added to. Log in once with ssh, and compare the key"));
  }

  private Stream<Path> files(String key) {
    return values.getOrDefault(key, List.of()).stream()
        .flatMap(line -> Stream.of(line.split(" ")))
        .filter(file -> !file.equals(NONE))
        .map(Destination::expanded);
  }

  private static Path home() {
    return Path.of(System.getProperty("user.home"));
  }

  private static Path expanded(String file) {
    return file.startsWith("~/") ? home().resolve(file.substring(2)) : Path.of(file);
  }

  /** As people write it. */
  String shown() {
    return user() + "@" + hostName() + (port() == DEFAULT_PORT ? "" : ":" + port());
  }
}

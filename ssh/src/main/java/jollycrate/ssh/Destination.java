package jollycrate.ssh;

import com.jcraft.jsch.ConfigRepository;
import com.jcraft.jsch.OpenSSHConfig;
import java.io.IOException;
import java.nio.file.Files;
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
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.Ran;
import jollycrate.host.Reach;
import jollycrate.host.UnreachableException;

/** Where a connection goes and by what, as {@code ssh_config(5)} says. */
final class Destination {
  private static final Pattern TARGET =
      Pattern.compile("(?:ssh://)?(?:([^@/]+)@)?(\\[[^]]+]|[^:/@]+)(?::(\\d{1,5}))?");

  /** Of a ProxyCommand; see ssh_config(5), TOKENS. */
  private static final Pattern TOKEN = Pattern.compile("%([hprn%])");

  private static final Duration TOLD_WITHIN = Duration.ofSeconds(10);
  private static final int USUAL_PORT = 22;
  private static final List<String> READ =
      List.of(
          "HostName",
          "User",
          "Port",
          "IdentitiesOnly",
          "HostKeyAlias",
          "UserKnownHostsFile",
          "GlobalKnownHostsFile",
          "ProxyJump",
          "ProxyCommand");
  private static final String NONE = "none";

  private final String alias;
  private final Map<String, List<String>> values;

  private Destination(String alias, Map<String, List<String>> values) {
    this.alias = alias;
    this.values = values;
  }

  /**
   * What a target means: as {@code ssh -G} says where there is one, so that everything holds that
   * OpenSSH's own configuration can say; else as the library reads the same file.
   */
  static Destination of(Reach reach) {
    String target = reach.ssh();
    Optional<Path> config = reach.config();
    Matcher parts = TARGET.matcher(target);
    if (!parts.matches() || parts.group(2).startsWith("-")) {
      throw new UnreachableException(
          "Cannot reach '" + target + "': write an alias, user@name or user@name:port");
    }
    String alias = parts.group(2).replaceAll("[\\[\\]]", "");
    Map<String, List<String>> values =
        asToldBySsh(alias, config).orElseGet(() -> asRead(alias, config));
    Optional.ofNullable(parts.group(1)).ifPresent(user -> values.put("user", List.of(user)));
    Optional.ofNullable(parts.group(3)).ifPresent(port -> values.put("port", List.of(port)));
    return new Destination(alias, values);
  }

  private static Optional<Map<String, List<String>>> asToldBySsh(
      String alias, Optional<Path> config) {
    List<String> command = new ArrayList<>(List.of("ssh", "-G"));
    config.ifPresent(file -> command.addAll(List.of("-F", file.toString())));
    command.addAll(List.of("--", alias));
    Host here = Host.local();
    try {
      Ran ran = here.processes().run(command, Path.of("/"), here.environment(), "", TOLD_WITHIN);
      if (ran.exit() != 0) {
        throw new UnreachableException(
            "Cannot reach '" + alias + "': ssh says '" + ran.errors().strip() + "'");
      }
      Map<String, List<String>> values = new HashMap<>();
      ran.output()
          .lines()
          .map(line -> line.split(" ", 2))
          .filter(words -> words.length == 2)
          .forEach(
              words ->
                  values
                      .computeIfAbsent(words[0].toLowerCase(Locale.ENGLISH), k -> new ArrayList<>())
                      .add(words[1]));
      return Optional.of(values);
    } catch (HostException noSshHere) {
      return Optional.empty();
    }
  }

  private static Map<String, List<String>> asRead(String alias, Optional<Path> config) {
    Path file = config.orElse(home().resolve(".ssh/config"));
    Map<String, List<String>> values = new HashMap<>();
    if (Files.isRegularFile(file)) {
      try {
        ConfigRepository.Config found = OpenSSHConfig.parseFile(file.toString()).getConfig(alias);
        for (String key : READ) {
          Optional.ofNullable(found.getValue(key))
              .ifPresent(value -> values.put(key.toLowerCase(Locale.ENGLISH), List.of(value)));
        }
        Optional.ofNullable(found.getValues("IdentityFile"))
            .ifPresent(keys -> values.put("identityfile", List.of(keys)));
      } catch (IOException e) {
        throw new UnreachableException("Cannot read '" + file + "': " + e.getMessage());
      }
    }
    values.computeIfAbsent(
        "identityfile",
        k ->
            Stream.of("id_ed25519", "id_ecdsa", "id_rsa")
                .map(name -> home().resolve(".ssh/" + name).toString())
                .toList());
    return values;
  }

  private static Path home() {
    return Path.of(System.getProperty("user.home"));
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
    return value("port").map(Integer::parseInt).orElse(USUAL_PORT);
  }

  String user() {
    return value("user").orElse(System.getProperty("user.name"));
  }

  /** What its key is kept under, when not under its name. */
  Optional<String> keptAs() {
    return value("hostkeyalias");
  }

  /** What known keys are kept under. */
  String keptName() {
    return keptAs().orElse(port() == USUAL_PORT ? hostName() : "[" + hostName() + "]:" + port());
  }

  /** Another destination through which it is reached. */
  Optional<String> jump() {
    return value("proxyjump");
  }

  /** A command through which it is reached. */
  Optional<String> command() {
    Map<String, String> meant =
        Map.of("h", hostName(), "p", "" + port(), "r", user(), "n", alias, "%", "%");
    return value("proxycommand")
        .map(
            command ->
                TOKEN
                    .matcher(command)
                    .replaceAll(found -> Matcher.quoteReplacement(meant.get(found.group(1)))));
  }

  /** Private keys that are there. */
  List<Path> keys() {
    return files("identityfile").filter(Files::isRegularFile).toList();
  }

  /** Whether only those keys are tried, whatever the agent has. */
  boolean onlyThoseKeys() {
    return value("identitiesonly").filter("yes"::equals).isPresent();
  }

  /** Files of known keys, that of the user first. */
  List<Path> knownHosts() {
    List<Path> files =
        Stream.of("userknownhostsfile", "globalknownhostsfile")
            .flatMap(key -> values.getOrDefault(key, List.of()).stream())
            .flatMap(line -> Stream.of(line.split(" ")))
            .filter(file -> !file.equals(NONE))
            .map(Destination::expanded)
            .toList();
    return files.isEmpty() ? List.of(home().resolve(".ssh/known_hosts")) : files;
  }

  private Stream<Path> files(String key) {
    return values.getOrDefault(key, List.of()).stream().map(Destination::expanded);
  }

  private static Path expanded(String file) {
    return file.startsWith("~/") ? home().resolve(file.substring(2)) : Path.of(file);
  }

  /** As people write it. */
  String told() {
    return user() + "@" + hostName() + (port() == USUAL_PORT ? "" : ":" + port());
  }
}

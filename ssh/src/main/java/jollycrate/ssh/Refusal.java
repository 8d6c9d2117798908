package jollycrate.ssh;

import java.io.IOException;
import java.time.Duration;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.host.HostException;
import jollycrate.host.Reach;
import jollycrate.host.UnreachableException;

/** Why {@code ssh} did not reach a machine, from what it says, with what to do. */
final class Refusal {
  private static final Pattern UNKNOWN_KEY =
      Pattern.compile("key is known for (\\S+) and you have requested strict checking");
  private static final Pattern NEW_FINGERPRINT = Pattern.compile("(SHA256:[A-Za-z0-9+/]+)");
  private static final Pattern OLD_PLACE = Pattern.compile("Offending \\S+ key in (.+):(\\d+)");
  private static final Pattern UNKNOWN_NAME =
      Pattern.compile("Could not resolve hostname ([^:\\s]+)");
  private static final Pattern NOT_CONNECTED =
      Pattern.compile("connect to host (\\S+) port (\\d+): (.+)");
  private static final Pattern OFFERED =
      Pattern.compile("Offering public key: (.+) \\S+ (SHA256:\\S+)(.*)");
  private static final Pattern ACCEPTED = Pattern.compile("Server accepts key: .*(SHA256:\\S+).*");
  private static final String EMPTY_AGENT = "agent contains no identities";
  private static final Pattern UNREAD_KEY = Pattern.compile("Load key \"(.+)\": (.+)");

  /** Said of a connection through another one, which has no port of its own. */
  private static final String ON_THE_WAY = "UNKNOWN port 65535";

  private static final Duration TRIED_WITHIN = Duration.ofSeconds(30);

  private final Reach reach;
  private final Destination destination;

  Refusal(Reach reach, Destination destination) {
    this.reach = reach;
    this.destination = destination;
  }

  /**
   * Of what it printed.
   *
   * @param answers what it was answered when it asked
   */
  UnreachableException of(String said, Optional<Answers> answers) {
    boolean onTheWay = said.contains(ON_THE_WAY);
    String way =
        onTheWay ? ", through " + destination.jump().orElse("the command of ProxyCommand") : "";
    return new UnreachableException(
        "Cannot reach '"
            + reach.name()
            + "' ("
            + destination.shown()
            + way
            + "): "
            + ofKey(said)
                .or(() -> ofNetwork(said))
                .or(() -> ofLogin(said, onTheWay, answers))
                .orElseGet(() -> plain(said)));
  }

  private Optional<String> ofKey(String said) {
    if (said.contains("REVOKED HOST KEY")) {
      return Optional.of(
          "its key is revoked" + revokedIn() + ". Ask its administrator for a new one");
    }
    if (said.contains("IDENTIFICATION HAS CHANGED")) {
      return Optional.of(changed(said));
    }
    Matcher unknown = UNKNOWN_KEY.matcher(said);
    if (!unknown.find()) {
      return Optional.empty();
    }
    return Optional.of(
        unknown.group(1).equals(destination.keptName())
            ? "its key is not known here. Look at it and trust it: jolly host trust " + reach.name()
            : "the key of "
                + unknown.group(1)
                + ", on the way to it, is not known here. Log in there once with ssh, and compare its"
                + " key");
  }

  private String revokedIn() {
    return new KnownKeys(destination.knownHosts())
        .all(destination.keptName()).stream()
            .filter(KnownKeys.Kept::revoked)
            .findFirst()
            .map(kept -> ", as '" + kept.file() + "' line " + kept.line() + " says")
            .orElse("");
  }

  private String changed(String said) {
    Matcher shown = NEW_FINGERPRINT.matcher(said);
    String now = shown.find() ? shown.group(1) : "an unknown one";
    Matcher place = OLD_PLACE.matcher(said);
    String before =
        place.find()
            ? "'" + place.group(1) + "' line " + place.group(2) + " has " + fingerprintAt(place)
            : "another one is trusted";
    return "it shows another key than before: "
        + now
        + ", where "
        + before
        + ". Somebody may stand in between, or it was set up anew. If you know that it was: jolly"
        + " host trust "
        + reach.name()
        + " --fingerprint "
        + now;
  }

  private String fingerprintAt(Matcher place) {
    int line = Integer.parseInt(place.group(2));
    return new KnownKeys(destination.knownHosts())
        .all(destination.keptName()).stream()
            .filter(kept -> kept.line() == line && kept.file().toString().equals(place.group(1)))
            .findFirst()
            .map(KnownKeys.Kept::fingerprint)
            .orElse("another one");
  }

  private Optional<String> ofNetwork(String said) {
    Matcher name = UNKNOWN_NAME.matcher(said);
    if (name.find()) {
      return Optional.of("no name service knows the name '" + name.group(1) + "'. Fix 'ssh'");
    }
    Matcher connecting = NOT_CONNECTED.matcher(said);
    if (connecting.find()) {
      return Optional.of(notConnected(connecting.group(2), connecting.group(3)));
    }
    return said.contains("timed out") || said.contains("not responding")
        ? Optional.of(nothingCame("" + destination.port()))
        : Optional.empty();
  }

  private static String notConnected(String port, String why) {
    if (why.contains("refused")) {
      return "it refuses connections at port "
          + port
          + ". Is its SSH server running, and is that its port?";
    }
    return why.contains("timed out")
        ? nothingCame(port)
        : "there is no way to it ("
            + why.strip()
            + "). Is the network of it up, and a VPN if it needs one?";
  }

  private static String nothingCame(String port) {
    return "nothing came back from port "
        + port
        + " within 10 s. A rule on the way lets nothing through, or it is down";
  }

  private Optional<String> ofLogin(String said, boolean onTheWay, Optional<Answers> answers) {
    if (!said.contains("Permission denied") && !said.contains("Too many authentication failures")) {
      return Optional.empty();
    }
    if (onTheWay) {
      return Optional.of(
          "what is on the way does not let one in. Put your key there, or load it into the agent");
    }
    Set<String> tried = new LinkedHashSet<>(keysTried());
    answers.filter(Answers::gavePassword).ifPresent(given -> tried.add("the password"));
    return Optional.of(
        "it does not let "
            + destination.user()
            + " in. Tried: "
            + (tried.isEmpty() ? "no key, as there is none" : String.join(", ", tried))
            + ". Put your key there, load it into the agent, or name 'password' in [host."
            + reach.name()
            + "]");
  }

  /** It connects once more, as only a talkative client says which keys it offers. */
  private List<String> keysTried() {
    List<String> command = OpenSsh.to(destination, "BatchMode=yes", "ControlPath=none");
    command.addAll(List.of("-v", "--", destination.alias(), "true"));
    try {
      return keysIn(OpenSsh.run(command, TRIED_WITHIN).errors());
    } catch (IOException | HostException e) {
      return List.of();
    }
  }

  /** A key that the machine accepts, and that lets nobody in, is one that could not be opened. */
  private static List<String> keysIn(String said) {
    Set<String> accepted =
        ACCEPTED.matcher(said).results().map(found -> found.group(1)).collect(Collectors.toSet());
    Stream<String> unread =
        UNREAD_KEY
            .matcher(said)
            .results()
            .map(found -> found.group(1) + " (" + found.group(2).strip() + ")");
    Stream<String> offered = OFFERED.matcher(said).results().map(found -> key(found, accepted));
    Stream<String> agent =
        said.contains(EMPTY_AGENT) ? Stream.of("the agent, which has no key") : Stream.empty();
    return Stream.concat(agent, Stream.concat(unread, offered)).toList();
  }

  private static String key(MatchResult offered, Set<String> accepted) {
    String name = offered.group(1);
    if (offered.group(3).contains("agent")) {
      return name + " of the agent";
    }
    return accepted.contains(offered.group(2))
        ? name + " (an encrypted key that 'key-password' does not open)"
        : name;
  }

  private static String plain(String said) {
    String words = OpenSsh.words(said);
    return words.isEmpty() ? "ssh ended without a word" : "ssh says: " + words;
  }
}

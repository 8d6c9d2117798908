package jollycrate.site;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.file.Shipped;
import jollycrate.host.Fact;
import jollycrate.host.Host;
import jollycrate.host.Listening;
import jollycrate.host.Ran;
import jollycrate.host.Time;
import jollycrate.site.Examination.Seen;
import jollycrate.site.Examination.Verdict;

/** Looks what a machine has of what servers need, thing by thing; changes nothing. */
public final class HostExamination {
  /** The last fact: without it the others are not whole. */
  private static final String END = "end";

  private static final String SCRIPT = "host-facts.sh";
  private static final Duration TOLD_WITHIN = Duration.ofSeconds(30);
  private static final Duration CLOCKS_MAY_DIFFER = Duration.ofSeconds(3);
  private static final double KIB_PER_GB = 1_000_000_000.0 / 1024;
  private static final long LEAST_FREE_KIB = 200_000;
  private static final Map<String, String> PACKAGES =
      Map.of("flock", "util-linux", "setsid", "util-linux");

  private final Host host;
  private final String loggedIn;
  private final Time time;
  private final List<Seen> seen = new ArrayList<>();
  private Map<String, List<String>> facts = Map.of();

  private HostExamination(Host host, String loggedIn, Time time) {
    this.host = host;
    this.loggedIn = loggedIn;
    this.time = time;
  }

  /**
   * Looks at everything, in reading order.
   *
   * @param loggedIn who logged in, and where
   */
  public static List<Seen> of(Host host, String loggedIn, Time time) {
    HostExamination examination = new HostExamination(host, loggedIn, time);
    examination.look();
    return List.copyOf(examination.seen);
  }

  private void look() {
    long asked = time.now().getEpochSecond();
    Ran ran =
        host.processes()
            .run(
                List.of("/bin/sh", "-s"),
                Path.of("/"),
                host.environment(),
                Shipped.text(HostExamination.class, SCRIPT),
                TOLD_WITHIN);
    long answered = time.now().getEpochSecond();
    facts =
        ran.output()
            .lines()
            .map(line -> line.split("\t", 2))
            .filter(words -> words.length == 2)
            .collect(
                Collectors.groupingBy(
                    words -> words[0],
                    LinkedHashMap::new,
                    Collectors.mapping(words -> words[1], Collectors.toList())));
    logIn();
    if (!facts.containsKey(END)) {
      odd(
          "facts",
          Verdict.WRONG,
          "the machine did not tell them all"
              + (ran.tookTooLong() ? " in time" : ": " + ran.errors().strip()),
          "Look whether /bin/sh, timeout and the coreutils run there");
      return;
    }
    system();
    tools();
    disks();
    clock(asked, answered);
    javas();
    ports();
    afterLogOut();
  }

  private Optional<String> fact(String name) {
    return facts.getOrDefault(name, List.of()).stream().filter(v -> !v.isEmpty()).findFirst();
  }

  private void right(String what, String value) {
    seen.add(new Seen(what, Verdict.RIGHT, value, ""));
  }

  private void odd(String what, Verdict verdict, String value, String fix) {
    seen.add(new Seen(what, verdict, value, fix));
  }

  private void logIn() {
    String user = fact("user").orElse("somebody unknown");
    right("log-in", loggedIn + ", works as " + user);
    if (facts.containsKey("home-read-only")) {
      odd(
          "home",
          Verdict.DOUBTFUL,
          fact("home-read-only").orElse("") + ": " + user + " may not write there",
          "Name the folders of its servers elsewhere");
    }
  }

  private void system() {
    right("system", fact("system").orElse("not told") + ", " + fact("kernel").orElse("not told"));
    right(
        "machine",
        fact("cores").orElse("?")
            + (fact("cores").equals(Optional.of("1")) ? " core, " : " cores, ")
            + gigabytes("memory")
            + " memory, "
            + gigabytes("memory-free")
            + " of it free");
  }

  private String gigabytes(String name) {
    return fact(name).map(kib -> gigabytes(Long.parseLong(kib))).orElse("unknown");
  }

  private static String gigabytes(long kib) {
    return String.format(Locale.ENGLISH, "%.1f GB", kib / KIB_PER_GB);
  }

  private void tools() {
    List<String> missing = facts.getOrDefault("missing", List.of());
    if (missing.isEmpty()) {
      right("tools", "a shell and what it needs");
    } else {
      odd(
          "tools",
          Verdict.WRONG,
          "there is no " + String.join(", no ", missing),
          "Install "
              + missing.stream()
                  .map(tool -> PACKAGES.getOrDefault(tool, "coreutils"))
                  .distinct()
                  .collect(Collectors.joining(" and "))
              + ", or busybox");
    }
    if (facts.containsKey("unmounted")) {
      odd(
          "processes",
          Verdict.WRONG,
          "there is no /proc, by which processes and ports are known",
          "Mount it there: mount -t proc proc /proc");
    }
    if (facts.containsKey("hidden")) {
      odd(
          "processes",
          Verdict.DOUBTFUL,
          "those of others are hidden (hidepid)",
          "Let this user see them: else what others started stays unknown");
    }
  }

  private void disks() {
    Map<String, List<String>> byMount = new LinkedHashMap<>();
    Map<String, Long> free = new LinkedHashMap<>();
    for (String told : facts.getOrDefault("disk", List.of())) {
      String[] words = told.split(" ");
      String mount = words[words.length - 1];
      byMount.computeIfAbsent(mount, key -> new ArrayList<>()).add(words[0]);
      free.put(mount, Long.parseLong(words[words.length - 2]));
    }
    byMount.forEach(
        (mount, folders) -> {
          String value = gigabytes(free.get(mount)) + " free for " + String.join(", ", folders);
          if (free.get(mount) < LEAST_FREE_KIB) {
            odd("disk", Verdict.WRONG, value, "Make room there");
          } else {
            right("disk", value);
          }
        });
  }

  /** Between asking and answering, its clock was read once. */
  private void clock(long asked, long answered) {
    Optional<Long> there = fact("time").map(Long::parseLong);
    if (there.isEmpty()) {
      odd("clock", Verdict.DOUBTFUL, "not told", "Look at it: date");
      return;
    }
    long behind = asked - there.get();
    long ahead = there.get() - answered;
    long off = Math.max(behind, ahead);
    if (off <= CLOCKS_MAY_DIFFER.toSeconds()) {
      right("clock", "as here");
    } else {
      odd(
          "clock",
          Verdict.DOUBTFUL,
          told(off) + (ahead > 0 ? " ahead of" : " behind") + " this machine's",
          "Let both be set from a time server: else its logs and certificates mislead");
    }
  }

  private static String told(long seconds) {
    return seconds < 120 ? seconds + " s" : seconds / 60 + " min";
  }

  private void javas() {
    List<String> javas = facts.getOrDefault("java", List.of());
    if (javas.isEmpty()) {
      odd(
          "Java",
          Verdict.DOUBTFUL,
          "none in PATH, JAVA_HOME, /usr/lib/jvm and /opt",
          "Install one there, or name its home as 'java' of a server");
    }
    for (String java : javas) {
      String[] words = java.split(" ", 2);
      right("Java", (words[0].isEmpty() ? "unknown" : words[0]) + ", " + words[1]);
    }
  }

  private void ports() {
    Fact<List<Listening>> listeners = host.processes().listeners();
    if (listeners.unread().isPresent()) {
      odd("ports", Verdict.DOUBTFUL, listeners.unread().get(), "Run as a user who may see them");
      return;
    }
    listeners.orElse(List.of()).stream()
        .map(HostExamination::told)
        .distinct()
        .forEach(held -> right("port", held));
  }

  private static String told(Listening held) {
    String address =
        held.address().isAnyLocalAddress()
            ? "every address"
            : held.address().isLoopbackAddress()
                ? "loopback only"
                : held.address().getHostAddress();
    return held.port() + ", " + address + ": " + held.who();
  }

  private void afterLogOut() {
    if (facts.containsKey("killed") && !facts.containsKey("lingers")) {
      odd(
          "log-out",
          Verdict.WRONG,
          "ends what was started (KillUserProcesses=yes in logind.conf)",
          "Let this user's programs stay: loginctl enable-linger " + fact("user").orElse("USER"));
    } else {
      right(
          "log-out",
          "leaves what was started alone"
              + (facts.containsKey("systemd") ? "; systemd starts units at boot" : ""));
    }
  }
}

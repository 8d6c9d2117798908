package jollycrate.ssh;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.host.Proc;

/** The {@code /proc} of another machine, as it was at one moment, read in one turn. */
final class SshProc implements Proc {
  private static final Pattern STATE =
      Pattern.compile("(\\d+) \\(.{0,64}?\\) [A-Za-z](?: -?\\d+){20,}", Pattern.DOTALL);
  private static final Pattern OPEN_FILE = Pattern.compile("l\\S+ .* (\\d+) -> (.*)");
  private static final Pattern FOLDER = Pattern.compile("/proc/(\\d+/fd):");
  private static final Pattern DENIED =
      Pattern.compile(".*?/proc/(\\d+/fd)\\W.*ermission denied.*");

  /** Nobody there can know it, so that no name of a process or a file can pass for one. */
  private static final String PART = ":part " + Shell.mark() + " ";

  private static final String ALWAYS =
      """
      part() { echo "%s$1"; }
      part sys/kernel/random/boot_id; cat /proc/sys/kernel/random/boot_id
      part self/ns/pid; readlink /proc/self/ns/pid
      if cat /proc/1/stat >/dev/null 2>&1; then :; else part hidden; fi
      """
          .formatted(PART);

  /** What is no letter, like the end of a line, is shown as a question mark; busybox does so. */
  private static final String LIST =
      """
      part fd; q=q; ls -lq / >/dev/null 2>&1 || q=
      LC_ALL=C.UTF-8 ls -l$q /proc/[0-9]*/fd 2>&1
      """;

  private static final Map<Part, String> SCRIPTS =
      Map.of(
          Part.STATES, "part stat; cat /proc/[0-9]*/stat 2>/dev/null\n",
          Part.OPEN_FILES, LIST,
          Part.MEMORY, "part rss; grep VmRSS: /proc/[0-9]*/status 2>/dev/null\n",
          Part.SOCKETS,
              """
              for t in tcp tcp6; do
                [ ! -r /proc/net/$t ] || { part net/$t; cat /proc/net/$t; }
              done
              """,
          Part.ARGUMENTS,
              """
              part cmdline
              for p in /proc/[0-9]*; do
                c=$(tr '\\000' '\\001' 2>/dev/null <"$p/cmdline"; printf .); c=${c%.}
                printf '%s %s %s' "${p#/proc/}" "${#c}" "$c"
              done
              """);

  /** Arguments come last: whatever they hold, nothing is looked for behind them. */
  private static final List<Part> ORDER =
      List.of(Part.STATES, Part.OPEN_FILES, Part.MEMORY, Part.SOCKETS, Part.ARGUMENTS);

  /** What a look at processes wants. */
  static final Set<Part> USUAL =
      EnumSet.of(Part.STATES, Part.OPEN_FILES, Part.SOCKETS, Part.ARGUMENTS);

  private final Map<String, String> texts = new HashMap<>();
  private final Map<String, String> targets = new HashMap<>();
  private final Map<String, List<String>> children = new HashMap<>();
  private final Set<String> denied = new HashSet<>();

  private SshProc() {}

  /** Asks for parts of it. */
  static String script(Set<Part> parts) {
    StringBuilder script = new StringBuilder(ALWAYS);
    ORDER.stream().filter(parts::contains).forEach(part -> script.append(SCRIPTS.get(part)));
    return script + ":";
  }

  /** What was told of them. */
  static SshProc of(Shell.Reply reply) {
    SshProc proc = new SshProc();
    proc.take(new String(reply.output(), StandardCharsets.ISO_8859_1));
    return proc;
  }

  private void take(String told) {
    String rest = told;
    while (rest.startsWith(PART)) {
      int end = rest.indexOf('\n');
      String name = rest.substring(PART.length(), end);
      int next = name.equals("cmdline") ? -1 : rest.indexOf("\n" + PART, end - 1);
      String text = rest.substring(end + 1, next < 0 ? rest.length() : Math.max(end + 1, next + 1));
      part(name, text);
      rest = next < 0 ? "" : rest.substring(next + 1);
    }
  }

  private void part(String name, String text) {
    switch (name) {
      case "stat" -> states(text);
      case "fd" -> openFiles(text);
      case "rss" -> text.lines().forEach(this::memory);
      case "cmdline" -> arguments(text);
      case "self/ns/pid" -> targets.put(name, text.strip());
      case "hidden" -> denied.add("1/stat");
      default -> texts.put(name, text);
    }
  }

  private void states(String text) {
    List<String> processes = new ArrayList<>();
    Matcher state = STATE.matcher(text);
    while (state.find()) {
      processes.add(state.group(1));
      texts.put(state.group(1) + "/stat", state.group());
    }
    children.put("", processes);
  }

  private void openFiles(String text) {
    String folder = "";
    for (String line : text.split("\n")) {
      Matcher header = FOLDER.matcher(line);
      Matcher file = OPEN_FILE.matcher(line);
      Matcher refused = DENIED.matcher(line);
      if (header.matches()) {
        folder = header.group(1);
        children.put(folder, new ArrayList<>());
      } else if (file.matches() && !folder.isEmpty()) {
        children.get(folder).add(file.group(1));
        targets.put(folder + "/" + file.group(1), utf8(file.group(2)));
      } else if (refused.matches()) {
        denied.add(refused.group(1));
      }
    }
  }

  private void memory(String line) {
    String file = line.substring("/proc/".length(), line.indexOf(':'));
    texts.put(file, line.substring(line.indexOf(':') + 1));
  }

  private void arguments(String text) {
    int at = 0;
    while (at < text.length()) {
      int space = text.indexOf(' ', at);
      int second = text.indexOf(' ', space + 1);
      int end = second + 1 + Integer.parseInt(text.substring(space + 1, second));
      String words = text.substring(second + 1, end).replace('\001', '\0');
      texts.put(text.substring(at, space) + "/cmdline", utf8(words));
      at = end;
    }
  }

  private static String utf8(String bytes) {
    return new String(bytes.getBytes(StandardCharsets.ISO_8859_1), StandardCharsets.UTF_8);
  }

  @Override
  public Optional<String> text(String file) {
    refuse(file);
    return Optional.ofNullable(texts.get(file));
  }

  @Override
  public String target(String link) {
    refuse(link.substring(0, link.lastIndexOf('/')));
    return targets.getOrDefault(link, "");
  }

  @Override
  public List<String> children(String folder) {
    refuse(folder);
    return children.getOrDefault(folder, List.of());
  }

  private void refuse(String path) {
    if (denied.contains(path)) {
      throw new Unreadable("/proc/" + path);
    }
  }
}

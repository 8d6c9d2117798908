package jollycrate.host;

import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.file.Shipped;

/**
 * What a Java process tells of itself to another user than its own: a small program is put beside
 * it for that, runs on its own Java as its owner, and goes again.
 */
public final class ProbedBeans {
  private static final String CLASS = "jollycrate/probe/BeansProbe";
  private static final Duration LIMIT = Duration.ofSeconds(15);

  private ProbedBeans() {}

  /** Runs a script of {@code sh} on the machine of the process. */
  @FunctionalInterface
  public interface Shell {
    /** How it ended. */
    Ran run(String script, String input, Duration limit) throws IOException;
  }

  /**
   * Asks a process.
   *
   * @param owner as whom it is asked, where that is another one: its program is his, and not run
   *     with more rights than he has
   */
  public static Fact<List<Bean>> ask(
      Shell shell, long pid, Optional<Account> owner, List<Question> questions) {
    String asked =
        questions.stream()
            .map(one -> one.pattern() + "\t" + String.join("\t", one.attributes()) + "\n")
            .collect(Collectors.joining());
    try {
      Ran ran = shell.run(as(owner, script(pid)), asked, LIMIT);
      return ran.tookTooLong()
          ? unknown(pid, "it did not answer within " + LIMIT.toSeconds() + " s")
          : told(pid, ran);
    } catch (IOException e) {
      return unknown(pid, e.getMessage());
    }
  }

  private static String as(Optional<Account> owner, String script) {
    return owner
        .map(account -> Quote.words(account.become()) + " /bin/sh -c " + Quote.word(script))
        .orElse(script);
  }

  private static String script(long pid) {
    return "d=$(mktemp -d) || exit\ntrap 'rm -rf \"$d\"' EXIT\nc=\"$d/"
        + CLASS
        + ".class\"\nmkdir -p \"${c%/*}\" && base64 -d >\"$c\" <<'END' || exit\n"
        + Base64.getMimeEncoder()
            .encodeToString(Shipped.bytes(ProbedBeans.class, "/" + CLASS + ".class"))
            .replace("\r", "")
        + "\nEND\ntimeout -s KILL "
        + LIMIT.toSeconds()
        + " \"$(readlink /proc/"
        + pid
        + "/exe)\" -Xmx64m -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -cp \"$d\" "
        + CLASS.replace('/', '.')
        + " "
        + pid
        + "\n";
  }

  private static Fact<List<Bean>> told(long pid, Ran ran) {
    List<String[]> lines = ran.output().lines().map(line -> line.split("\t")).toList();
    String last = lines.isEmpty() ? "" : lines.get(lines.size() - 1)[0];
    if (last.equals("no")) {
      return unknown(pid, plain(lines.get(lines.size() - 1)[1]));
    }
    if (!last.equals("end")) {
      return unknown(pid, ran.errors().strip());
    }
    List<Bean> beans = new ArrayList<>();
    Map<String, String> keys = new HashMap<>();
    Map<String, String> values = new HashMap<>();
    for (String[] line : lines) {
      switch (line[0]) {
        case "bean" -> {
          keys = new HashMap<>();
          values = new HashMap<>();
          beans.add(new Bean(plain(line[1]), keys, values));
        }
        case "key" -> keys.put(plain(line[1]), line.length > 2 ? plain(line[2]) : "");
        case "value" -> values.put(plain(line[1]), line.length > 2 ? plain(line[2]) : "");
        default -> {
          return Fact.known(List.copyOf(beans));
        }
      }
    }
    return Fact.known(List.copyOf(beans));
  }

  private static String plain(String escaped) {
    return URLDecoder.decode(escaped, StandardCharsets.UTF_8);
  }

  private static Fact<List<Bean>> unknown(long pid, String why) {
    return Fact.unknown("process " + pid + " cannot be asked: " + why);
  }
}

package jollycrate.ssh;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/**
 * A script as it is sent to a machine, where a shell prints a mark that nobody else knows before it
 * runs it.
 */
record Script(String mark, byte[] bytes) {
  /**
   * English, the tools of the system where the log-in shell finds none, and a folder that whoever
   * one becomes may be in.
   */
  private static final String PRELUDE =
      """
      LC_ALL=C
      PATH=${PATH:-/usr/bin:/bin}:/usr/bin:/bin:/usr/sbin:/sbin
      export LC_ALL PATH
      umask 077
      cd /
      """;

  private static final int MOST_GREETING = 1 << 16;

  /** Of a text for {@code sh}. */
  static Script of(String text) {
    String mark = Shell.mark();
    String said = "printf '\\n%s\\n' " + mark;
    String whole = PRELUDE + said + "; " + said + " >&2\n" + text;
    return new Script(mark, whole.getBytes(StandardCharsets.UTF_8));
  }

  /**
   * The command that reads it from its input and runs it, whatever the log-in shell is.
   *
   * @param before goes in front of the shell
   */
  String command(String before) {
    return "exec "
        + before
        + "/bin/sh -c 'eval \"$(dd bs=1 count="
        + bytes.length
        + " 2>/dev/null)\"'";
  }

  /** Reads until a line with the mark; what came instead of it. */
  Optional<String> awaitedIn(InputStream stream) throws IOException {
    byte[] end = ("\n" + mark + "\n").getBytes(StandardCharsets.UTF_8);
    ByteArrayOutputStream all = new ByteArrayOutputStream();
    int matched = 0;
    while (matched < end.length) {
      int next = stream.read();
      if (next < 0 || all.size() > MOST_GREETING) {
        return Optional.of(all.toString(StandardCharsets.UTF_8));
      }
      all.write(next);
      matched = next == end[matched] ? matched + 1 : next == end[0] ? 1 : 0;
    }
    return Optional.empty();
  }
}

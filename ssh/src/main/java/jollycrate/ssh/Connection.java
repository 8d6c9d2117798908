package jollycrate.ssh;

import com.jcraft.jsch.ChannelExec;
import com.jcraft.jsch.JSchException;
import com.jcraft.jsch.Session;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Optional;
import jollycrate.host.HeldLock;
import jollycrate.host.Ran;
import jollycrate.host.Time;
import jollycrate.host.Words;

/**
 * One connection, and what runs on it.
 *
 * @param before goes in front of every shell
 */
record Connection(Session session, String before) {
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
  private static final int OPENS_WITHIN_MILLIS = 10_000;
  private static final Duration LOOK_AGAIN = Duration.ofMillis(5);
  private static final long KILLED_LATER_NANOS = Duration.ofSeconds(2).toNanos();
  private static final int NOT_YET = -1;

  /**
   * A shell that runs a script, whatever the log-in shell is, and says before.
   *
   * @throws NoShell when none came
   */
  Program program(String script) throws IOException {
    String mark = Shell.mark();
    String said = "printf '\\n%s\\n' " + mark;
    byte[] program =
        (PRELUDE + said + "; " + said + " >&2\n" + script).getBytes(StandardCharsets.UTF_8);
    Program started =
        exec(
            "exec "
                + before
                + "/bin/sh -c 'eval \"$(dd bs=1 count="
                + program.length
                + " 2>/dev/null)\"'");
    started.in().write(program);
    started.in().flush();
    Optional<String> greeting = passed(started.out(), mark);
    Optional<String> errors = passed(started.errors(), mark);
    if (greeting.isPresent() || errors.isPresent()) {
      started.end();
      throw new NoShell((greeting.orElse("") + errors.orElse("")).strip());
    }
    return started;
  }

  /** Reads until a line with a mark; what came instead of it. */
  private static Optional<String> passed(InputStream stream, String mark) throws IOException {
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

  /** No shell came up; the message is what was said instead. */
  static final class NoShell extends IOException {
    private static final long serialVersionUID = 1L;

    NoShell(String said) {
      super(said);
    }
  }

  /** A command line that the login shell there runs. */
  private Program exec(String command) throws IOException {
    try {
      ChannelExec channel = (ChannelExec) session.openChannel("exec");
      channel.setCommand(command.getBytes(StandardCharsets.UTF_8));
      Program program =
          new Program(
              channel, channel.getOutputStream(), channel.getInputStream(), channel.getErrStream());
      channel.connect(OPENS_WITHIN_MILLIS);
      return program;
    } catch (JSchException e) {
      throw new IOException(e.getMessage(), e);
    }
  }

  /** Runs a script to its end, or to its limit. */
  Ran run(String script, String input, Duration limit) throws IOException {
    long begun = System.nanoTime();
    Program program = program(script);
    try {
      Words output = Words.of(program.out());
      Words errors = Words.of(program.errors());
      Words.inBackground(() -> program.tell(input));
      int exit = program.exit();
      while (exit == NOT_YET && System.nanoTime() - begun < limit.toNanos() + KILLED_LATER_NANOS) {
        Time.system().pause(LOOK_AGAIN);
        exit = program.exit();
      }
      boolean late = System.nanoTime() - begun >= limit.toNanos();
      return new Ran(exit != 0 && late ? -1 : exit, output.text(), errors.text());
    } finally {
      program.end();
    }
  }

  /** A program there, with its streams. */
  record Program(ChannelExec channel, OutputStream in, InputStream out, InputStream errors)
      implements HeldLock.Shell {

    @Override
    public boolean runs() {
      return channel.isConnected() && channel.getExitStatus() == NOT_YET;
    }

    /** Its exit code; below zero as long as it runs. */
    int exit() {
      return channel.getExitStatus();
    }

    /** A program that ends without reading all of its input does without it. */
    void tell(String input) {
      try (in) {
        in.write(input.getBytes(StandardCharsets.UTF_8));
      } catch (IOException endedBefore) {
        return;
      }
    }

    @Override
    public void end() {
      channel.disconnect();
    }
  }
}

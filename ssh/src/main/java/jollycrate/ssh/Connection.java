package jollycrate.ssh;

import com.jcraft.jsch.ChannelExec;
import com.jcraft.jsch.JSchException;
import com.jcraft.jsch.Session;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
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
  private static final int OPENS_WITHIN_MILLIS = 10_000;
  private static final Duration LOOK_AGAIN = Duration.ofMillis(5);
  private static final long KILLED_LATER_NANOS = Duration.ofSeconds(2).toNanos();
  private static final int NOT_YET = -1;

  /** A shell that runs a script. */
  Program program(String script) throws IOException {
    byte[] program = script.getBytes(StandardCharsets.UTF_8);
    Program started = exec(Shell.bootstrap(before, program));
    started.in().write(program);
    started.in().flush();
    return started;
  }

  /** A command line that the login shell there runs. */
  Program exec(String command) throws IOException {
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

package jollycrate.keeper;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.Paths;
import java.util.concurrent.TimeUnit;

/**
 * One process and no other, as its own shell noted it before it became the program: process id,
 * start time in ticks since boot, and the id of that boot (proc(5)).
 */
final class Note {
  /** For a shell: notes the process, then becomes the program. */
  static final String NOTE_THEN_BECOME =
      "read -r stat </proc/$$/stat; read -r boot </proc/sys/kernel/random/boot_id;"
          + " ticks=$(echo \"${stat##*) }\" | cut -d' ' -f20);"
          + " echo \"$$ $ticks $boot\" >\"$0.part\" && mv -f \"$0.part\" \"$0\" && exec \"$@\"";

  private static final int START_TIME = 19;

  final long pid;
  final long ticks;
  private final String boot;

  private Note(long pid, long ticks, String boot) {
    this.pid = pid;
    this.ticks = ticks;
    this.boot = boot;
  }

  static Note read(Path file) throws IOException {
    String[] parts = text(file).trim().split(" ");
    if (parts.length != 3) {
      throw new IOException("no process is noted in " + file);
    }
    try {
      return new Note(Long.parseLong(parts[0]), Long.parseLong(parts[1]), parts[2]);
    } catch (NumberFormatException e) {
      throw new IOException("no process is noted in " + file);
    }
  }

  boolean alive() {
    try {
      String stat = text(Paths.get("/proc/" + pid + "/stat"));
      String[] fields = stat.substring(stat.lastIndexOf(')') + 2).split(" ");
      boolean ended = fields[0].equals("Z") || fields[0].equals("X");
      return !ended
          && Long.parseLong(fields[START_TIME]) == ticks
          && text(Paths.get("/proc/sys/kernel/random/boot_id")).trim().equals(boot);
    } catch (IOException e) {
      return false;
    }
  }

  /** Signals the process; with those it started when {@code all}. */
  void signal(String name, boolean all) {
    try {
      new ProcessBuilder("kill", "-" + name, "--", (all ? "-" : "") + pid)
          .redirectErrorStream(true)
          .redirectOutput(new File("/dev/null"))
          .start()
          .waitFor(5, TimeUnit.SECONDS);
    } catch (IOException e) {
      System.err.println("Cannot signal process " + pid + ": " + e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  private static String text(Path file) throws IOException {
    return new String(Files.readAllBytes(file), StandardCharsets.UTF_8);
  }
}

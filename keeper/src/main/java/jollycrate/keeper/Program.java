package jollycrate.keeper;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/** One program: started, its output written to its log, ended, and started again after a crash. */
final class Program implements Runnable {
  private static final long FIRST_PAUSE = 1;
  private static final long LONGEST_PAUSE = 60;
  private static final long SOUND_AFTER = TimeUnit.SECONDS.toNanos(60);
  private static final long PRINTS_WITHIN = 2;
  private static final long DIES_WITHIN = 10;
  private static final int BUFFER = 1 << 14;

  final RunFile run;
  private final Path folder;
  private final Events events;
  private final CountDownLatch wanted = new CountDownLatch(1);
  private final Thread thread;
  private Program before;
  private long pause = FIRST_PAUSE;

  Program(RunFile run, Path folder, Events events, Program before) {
    this.run = run;
    this.folder = folder;
    this.events = events;
    this.before = before;
    this.thread = new Thread(this, run.name);
  }

  void start() {
    thread.start();
  }

  /** Asks it to end, and to stay so. */
  void end() {
    wanted.countDown();
  }

  /** Whether it came to its end, and nothing of it is left. */
  boolean isOver() {
    return !thread.isAlive();
  }

  void await() throws InterruptedException {
    thread.join();
  }

  private Path note() {
    return folder.resolve("state").resolve(run.name + ".pid");
  }

  @Override
  public void run() {
    try {
      if (before != null) {
        before.await();
        before = null;
      }
      boolean again = true;
      while (again && wanted.getCount() > 0) {
        again = once() && run.restarts() && wanted.getCount() > 0 && paused();
      }
      wanted.await();
      deleteCopy();
      events.tell("gone", run.name, run.digest);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /** Whether it is to be started again after the pause; false when that was no use. */
  private boolean paused() throws InterruptedException {
    events.tell("again", run.name, run.digest + " in " + pause + " s");
    boolean ended = wanted.await(pause, TimeUnit.SECONDS);
    pause = Math.min(LONGEST_PAUSE, pause * 2);
    return !ended;
  }

  /** Runs it once; whether it crashed, or could not be started, which may pass. */
  private boolean once() throws InterruptedException {
    long began = System.nanoTime();
    try (RotatingLog log = new RotatingLog(folder.resolve("log"), run)) {
      Process process = started();
      Note noted = noted(process);
      Thread ending = null;
      if (noted != null) {
        events.tell("begin", run.name, run.digest + " pid " + noted.pid + " log " + log.place());
        ending = ending(process, noted);
      }
      Thread output = pump(process.getInputStream(), log);
      int code = process.waitFor();
      if (ending != null && wanted.getCount() > 0) {
        ending.interrupt();
      }
      if (noted != null) {
        noted.signal("KILL", true);
      }
      output.join(TimeUnit.SECONDS.toMillis(DIES_WITHIN));
      Files.deleteIfExists(note());
      if (System.nanoTime() - began > SOUND_AFTER) {
        pause = FIRST_PAUSE;
      }
      events.tell("ended", run.name, run.digest + " code " + code);
      return code != 0;
    } catch (IOException e) {
      events.tell("refused", run.name, run.digest + " " + e.getMessage());
      return true;
    }
  }

  private void copy() throws IOException {
    if (run.copyFrom() != null) {
      Files.copy(
          run.copyFrom(),
          run.copyTo(),
          StandardCopyOption.COPY_ATTRIBUTES,
          StandardCopyOption.REPLACE_EXISTING);
    }
  }

  private void deleteCopy() {
    try {
      if (run.copyFrom() != null) {
        Files.deleteIfExists(run.copyTo());
      }
    } catch (IOException e) {
      events.tell("left", run.name, run.digest + " " + run.copyTo() + ": " + e.getMessage());
    }
  }

  /** Its input stays open and silent: some programs end where theirs does. */
  private Process started() throws IOException {
    copy();
    Files.deleteIfExists(note());
    List<String> command =
        new ArrayList<>(
            Arrays.asList("setsid", "/bin/sh", "-c", Note.NOTE_THEN_BECOME, note().toString()));
    command.addAll(run.command());
    ProcessBuilder builder =
        new ProcessBuilder(command).directory(run.folder()).redirectErrorStream(true);
    builder.environment().putAll(run.variables());
    return builder.start();
  }

  /** Who it is; null when it ended before it could tell. */
  private Note noted(Process process) throws InterruptedException, IOException {
    while (!Files.exists(note())) {
      if (process.waitFor(2, TimeUnit.MILLISECONDS) && !Files.exists(note())) {
        return null;
      }
    }
    return Note.read(note());
  }

  /** Once it is asked to end: politely, then with a print of its threads, then firmly. */
  private Thread ending(Process process, Note noted) {
    Thread ending =
        new Thread(
            () -> {
              try {
                wanted.await();
                if (!process.isAlive()) {
                  return;
                }
                events.tell("ending", run.name, run.digest);
                noted.signal("TERM", false);
                if (!process.waitFor(run.stopWithin, TimeUnit.SECONDS)) {
                  events.tell("deaf", run.name, run.digest + " after " + run.stopWithin + " s");
                  noted.signal("QUIT", false);
                  process.waitFor(PRINTS_WITHIN, TimeUnit.SECONDS);
                  noted.signal("KILL", true);
                }
                if (process.waitFor(DIES_WITHIN, TimeUnit.SECONDS)) {
                  noted.signal("TERM", true);
                }
              } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
              }
            });
    ending.setDaemon(true);
    ending.start();
    return ending;
  }

  /** A log that cannot be written does not hold up the program. */
  private Thread pump(InputStream output, RotatingLog log) {
    Thread pump =
        new Thread(
            () -> {
              byte[] buffer = new byte[BUFFER];
              boolean lost = false;
              try {
                for (int n = output.read(buffer); n >= 0; n = output.read(buffer)) {
                  lost = !logged(log, buffer, n, lost);
                }
              } catch (IOException e) {
                events.tell("unlogged", run.name, run.digest + " " + e.getMessage());
              }
            });
    pump.setDaemon(true);
    pump.start();
    return pump;
  }

  private boolean logged(RotatingLog log, byte[] bytes, int length, boolean lost) {
    try {
      log.write(bytes, length);
      return true;
    } catch (IOException e) {
      if (!lost) {
        events.tell("unlogged", run.name, run.digest + " " + e.getMessage());
      }
      return false;
    }
  }
}

package jollycrate.keeper;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.file.DirectoryStream;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.Paths;
import java.nio.file.StandardOpenOption;
import java.nio.file.StandardWatchEventKinds;
import java.nio.file.WatchKey;
import java.nio.file.WatchService;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.TimeUnit;

/**
 * Keeps the programs of a service running: exactly those that its folder {@code run} names, each as
 * its file says. A file that comes starts a program, one that changes replaces it, one that goes
 * ends it.
 */
public final class Keeper {
  private static final long LOOK_AGAIN_MILLIS = 500;
  private static final long LEFT_ENDS_WITHIN = TimeUnit.SECONDS.toNanos(20);
  private static final long PAUSE_MILLIS = 20;

  private final Path folder;
  private final Events events;
  private final Map<String, Program> programs = new TreeMap<>();

  /** Asked to end and perhaps not at their end: whoever takes their place waits for them. */
  private final Map<String, Program> leaving = new TreeMap<>();

  private final Map<String, String> unreadable = new TreeMap<>();
  private boolean ending;

  private Keeper(Path folder) throws IOException {
    this.folder = folder;
    this.events = Events.begin(folder.resolve("state").resolve("events"));
  }

  /** Runs until it is told to stop; the argument is the service's folder. */
  public static void main(String[] arguments) throws IOException, InterruptedException {
    Path folder = Paths.get(arguments[0]);
    try (FileChannel channel =
            FileChannel.open(
                folder.resolve("state").resolve("keeper"),
                StandardOpenOption.CREATE,
                StandardOpenOption.WRITE);
        FileLock lock = channel.tryLock()) {
      if (lock == null) {
        System.err.println("Another keeper looks after '" + folder + "' already");
        System.exit(1);
      }
      new Keeper(folder).keep();
    }
  }

  private void keep() throws IOException, InterruptedException {
    endLeft();
    Runtime.getRuntime().addShutdownHook(new Thread(this::endAll, "ending"));
    events.tell("up", "keeper", "");
    try (WatchService watch = FileSystems.getDefault().newWatchService()) {
      folder
          .resolve("programs")
          .register(
              watch,
              StandardWatchEventKinds.ENTRY_CREATE,
              StandardWatchEventKinds.ENTRY_DELETE,
              StandardWatchEventKinds.ENTRY_MODIFY);
      while (look()) {
        WatchKey key = watch.poll(LOOK_AGAIN_MILLIS, TimeUnit.MILLISECONDS);
        if (key != null) {
          key.pollEvents();
          key.reset();
        }
      }
    }
  }

  /** Programs that an earlier keeper left behind when it was killed. */
  private void endLeft() throws IOException, InterruptedException {
    try (DirectoryStream<Path> notes = Files.newDirectoryStream(folder.resolve("state"), "*.pid")) {
      for (Path file : notes) {
        String name = file.getFileName().toString();
        try {
          Note note = Note.read(file);
          if (note.alive()) {
            events.tell("left", name, "pid " + note.pid);
            end(note);
          }
        } catch (IOException unreadable) {
          events.tell("lost", name, unreadable.getMessage());
        }
        Files.deleteIfExists(file);
      }
    }
  }

  private static void end(Note note) throws InterruptedException {
    note.signal("TERM", false);
    long until = System.nanoTime() + LEFT_ENDS_WITHIN;
    while (note.alive() && System.nanoTime() < until) {
      Thread.sleep(PAUSE_MILLIS);
    }
    note.signal("KILL", true);
  }

  /** Compares what is to run with what runs; false once everything is ending. */
  private synchronized boolean look() throws IOException {
    if (ending) {
      return false;
    }
    Map<String, RunFile> wanted = wanted();
    for (String name : new ArrayList<>(programs.keySet())) {
      if (!wanted.containsKey(name) && !unreadable.containsKey(name)) {
        Program program = programs.remove(name);
        program.end();
        leaving.put(name, program);
      }
    }
    leaving.values().removeIf(Program::isOver);
    wanted.forEach(
        (name, run) -> {
          Program now = programs.get(name);
          if (now == null || !now.run.digest.equals(run.digest)) {
            if (now != null) {
              now.end();
            }
            Program before = now == null ? leaving.get(name) : now;
            Program next = new Program(run, folder, events, before);
            programs.put(name, next);
            next.start();
          }
        });
    return true;
  }

  private Map<String, RunFile> wanted() throws IOException {
    Map<String, RunFile> wanted = new TreeMap<>();
    List<Path> files = new ArrayList<>();
    try (DirectoryStream<Path> found =
        Files.newDirectoryStream(folder.resolve("programs"), "*" + RunFile.ENDING)) {
      found.forEach(files::add);
    }
    Map<String, String> faults = new TreeMap<>();
    for (Path file : files) {
      try {
        RunFile run = RunFile.read(file);
        wanted.put(run.name, run);
      } catch (NoSuchFileException gone) {
        continue;
      } catch (IOException e) {
        String name = file.getFileName().toString().replace(RunFile.ENDING, "");
        faults.put(name, e.getMessage());
        if (!e.getMessage().equals(unreadable.get(name))) {
          events.tell("refused", name, "- " + e.getMessage());
        }
      }
    }
    unreadable.clear();
    unreadable.putAll(faults);
    return wanted;
  }

  private void endAll() {
    List<Program> all;
    synchronized (this) {
      ending = true;
      all = new ArrayList<>(programs.values());
      all.addAll(leaving.values());
    }
    try {
      for (Program program : all) {
        program.end();
      }
      for (Program program : all) {
        program.await();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    events.tell("down", "keeper", "");
  }
}

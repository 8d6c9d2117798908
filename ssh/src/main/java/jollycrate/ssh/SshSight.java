package jollycrate.ssh;

import java.io.ByteArrayInputStream;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import jollycrate.host.Facts;
import jollycrate.host.Glance;
import jollycrate.host.LineCutException;
import jollycrate.host.Proc;
import jollycrate.host.Sight;
import jollycrate.host.Time;

/** Asks the shell of another machine: for many things at once, and within a look for each once. */
final class SshSight implements Sight {
  private static final int LITTLE = 1 << 15;
  private static final int MORE = 1 << 20;
  private static final long CLEAR_NANOS = 50_000_000;
  private static final double SECOND = 1e9;

  private final Wire wire;
  private final Map<String, Shell.Reply> replies = new HashMap<>();
  private final Map<Path, Facts> facts = new HashMap<>();

  private final List<Change> waiting = new ArrayList<>();

  /** Whose look is under way; others see what is there now. */
  private Thread looking;

  /** Whose changes are made together. */
  private Thread gathering;

  /**
   * A change that was not sent yet, and who hears of it.
   *
   * @param harmless whether it may be made twice
   */
  private record Change(String script, byte[] input, boolean harmless, Consumer<Shell.Reply> told) {
    Shell.Request after(boolean another) {
      return new Shell.Request(script, new ByteArrayInputStream(input), input.length, another);
    }
  }

  SshSight(Wire wire) {
    this.wire = wire;
  }

  @Override
  public Runnable whenBack(Runnable again) {
    return wire.whenBack(again);
  }

  /**
   * Nothing while the connection stands; else it is taken up again.
   *
   * @throws jollycrate.host.LineCutException when it is not back in time
   */
  synchronized void mustStand() {
    wire.mustStand();
  }

  /**
   * Takes up a connection again that was cut while something was asked.
   *
   * @throws jollycrate.host.LineCutException when it is not back in time
   */
  synchronized void back(LineCutException cut) {
    wire.back(cut);
    forget();
  }

  @Override
  public <T> T once(Supplier<T> look) {
    if (!begins()) {
      return look.get();
    }
    try {
      return look.get();
    } finally {
      end();
    }
  }

  private synchronized boolean begins() {
    if (looking != null) {
      return false;
    }
    looking = Thread.currentThread();
    return true;
  }

  private synchronized void end() {
    looking = null;
    forget();
  }

  private void forget() {
    replies.clear();
    facts.clear();
  }

  private boolean isLook() {
    return looking == Thread.currentThread();
  }

  /** The process id of the shell there. */
  long pid() {
    return wire.shell().pid();
  }

  /** Runs a script that changes nothing. */
  synchronized Shell.Reply read(String script) {
    return isLook() && replies.containsKey(script)
        ? replies.get(script)
        : read(List.of(script)).get(0);
  }

  private List<Shell.Reply> read(List<String> scripts) {
    List<Shell.Reply> told = send(scripts.stream().map(Shell.Request::of).toList(), true);
    for (int i = 0; i < scripts.size() && isLook(); i++) {
      replies.put(scripts.get(i), told.get(i));
    }
    return told;
  }

  /** Runs a script that changes something and whose answer is waited for. */
  synchronized Shell.Reply change(String script, InputStream input, long size) {
    forget();
    boolean after = isGathering() && !waiting.isEmpty();
    return send(List.of(new Shell.Request(script, input, size, after)), false).get(0);
  }

  /**
   * Runs a script that changes something.
   *
   * @param told hears what came of it, and throws what is to be thrown then
   */
  synchronized void change(String script, byte[] input, Consumer<Shell.Reply> told) {
    change(new Change(script, input, false, told));
  }

  private void change(Change change) {
    forget();
    if (isGathering()) {
      waiting.add(change);
    } else {
      change.told().accept(send(List.of(change.after(false)), change.harmless()).get(0));
    }
  }

  private boolean isGathering() {
    return gathering == Thread.currentThread();
  }

  @Override
  public void together(Runnable changes) {
    synchronized (this) {
      if (gathering != null) {
        throw new IllegalStateException("changes are gathered already");
      }
      gathering = Thread.currentThread();
    }
    try (Gathering end = this::endGathering) {
      changes.run();
    }
  }

  /** The end of changes that are made together; what failed before stays the reason. */
  private interface Gathering extends AutoCloseable {
    @Override
    void close();
  }

  private synchronized void endGathering() {
    try {
      settle();
    } finally {
      gathering = null;
    }
  }

  /** Makes the changes that wait. */
  synchronized void settle() {
    send(List.of(), true);
  }

  /** Sends what waits and then this; throws what came of the first that failed. */
  private List<Shell.Reply> send(List<Shell.Request> last, boolean harmless) {
    List<Change> changes = isGathering() ? List.copyOf(waiting) : List.of();
    if (isGathering()) {
      waiting.clear();
    }
    List<Shell.Request> requests = new ArrayList<>();
    changes.forEach(change -> requests.add(change.after(!requests.isEmpty())));
    requests.addAll(last);
    boolean twice = harmless && changes.stream().allMatch(Change::harmless);
    List<Shell.Reply> told = requests.isEmpty() ? List.of() : asked(requests, twice);
    for (int i = 0; i < changes.size(); i++) {
      changes.get(i).told().accept(told.get(i));
    }
    return told.subList(changes.size(), told.size());
  }

  /** What may be asked twice is asked again when the connection was cut meanwhile. */
  private List<Shell.Reply> asked(List<Shell.Request> requests, boolean twice) {
    wire.mustStand();
    try {
      return wire.shell().ask(requests);
    } catch (LineCutException cut) {
      if (!twice) {
        throw cut;
      }
      back(cut);
      return wire.shell().ask(requests);
    }
  }

  /** A turn with nothing to send is what the way costs by itself. */
  @Override
  public double rate() {
    long turn = nanos(0);
    long little = Math.max(1, nanos(LITTLE) - turn);
    return little > CLEAR_NANOS
        ? LITTLE * SECOND / little
        : MORE * SECOND / Math.max(1, nanos(MORE) - turn);
  }

  private synchronized long nanos(int bytes) {
    long begin = System.nanoTime();
    change("cat >/dev/null", new ByteArrayInputStream(new byte[bytes]), bytes);
    return System.nanoTime() - begin;
  }

  @Override
  public void pause(Time time, Duration little, List<Path> watched) {
    synchronized (this) {
      change(new Change(ReadScripts.pause(watched), new byte[0], true, reply -> {}));
    }
  }

  /** Facts of paths, in the order asked for. */
  synchronized List<Facts> facts(List<Path> paths) {
    List<Path> unseen = unseen(paths);
    Map<Path, Facts> told = isLook() ? facts : new HashMap<>();
    if (!unseen.isEmpty()) {
      StatLine.facts(unseen, read(StatLine.script(unseen)))
          .forEach(found -> told.put(found.path(), found));
    }
    return paths.stream().map(told::get).toList();
  }

  private List<Path> unseen(List<Path> paths) {
    return paths.stream().distinct().filter(path -> !isLook() || !facts.containsKey(path)).toList();
  }

  /** {@code /proc} as it is now, of those parts at least. */
  Proc proc(Set<Proc.Part> parts) {
    Set<Proc.Part> wanted = isLook() && SshProc.USUAL.containsAll(parts) ? SshProc.USUAL : parts;
    return SshProc.of(read(SshProc.script(wanted)));
  }

  @Override
  public synchronized void ahead(Glance glance) {
    if (!isLook()) {
      return;
    }
    Set<String> scripts = new LinkedHashSet<>();
    List<Path> unseen = unseen(glance.facts());
    if (!unseen.isEmpty()) {
      scripts.add(StatLine.script(unseen));
    }
    glance.parts().stream().map(ReadScripts::part).forEach(scripts::add);
    glance.folders().stream().map(ReadScripts::list).forEach(scripts::add);
    glance.digests().stream().map(ReadScripts::digest).forEach(scripts::add);
    glance.real().stream().map(ReadScripts::real).forEach(scripts::add);
    glance.places().stream().flatMap(ReadScripts::place).forEach(scripts::add);
    if (glance.wantsProcesses()) {
      scripts.add(SshProc.script(SshProc.USUAL));
    }
    scripts.removeAll(replies.keySet());
    read(List.copyOf(scripts));
    facts(glance.facts());
  }
}

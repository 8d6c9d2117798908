package jollycrate.journal;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Glance;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.json.Json;
import jollycrate.stock.RecordsException;

/**
 * The journal of one delivery: one JSON object a line, in {@code .jolly/journal.jsonl}. Behind the
 * lines stands room for more, as empty lines, so that taking back needs no further space on a disk
 * that has filled up. A torn line counts as not written: it is the last one, or a line {@code torn}
 * follows it. Anything else that cannot be read is no journal, and nobody may pass over it.
 */
public final class Journal {
  private static final int MOST_BYTES = 64 << 20;
  private static final int ROOM = 64 << 10;
  private static final int ROOM_TO_TAKE_BACK = 24 << 10;

  private final HostFiles files;
  private final Path file;
  private final JournalLine.Opened opened;
  private final Runnable mayWrite;
  private final Map<Integer, JournalLine.Doing> doing = new LinkedHashMap<>();
  private final Map<Integer, Long> undoing = new LinkedHashMap<>();
  private final Set<Integer> undone = new TreeSet<>();
  private JournalLine.Proven proven;
  private JournalLine.Ended ended;
  private long end;
  private long size;
  private boolean torn;

  private Journal(HostFiles files, Path file, JournalLine.Opened opened, Runnable mayWrite) {
    this.files = files;
    this.file = file;
    this.opened = opened;
    this.mayWrite = mayWrite;
  }

  /**
   * Begins a journal in place of the one before.
   *
   * @param mayWrite throws when the right to change the server was lost; asked before every line
   */
  public static Journal open(
      HostFiles files, Path file, Access access, JournalLine.Opened opened, Runnable mayWrite) {
    byte[] line = bytes(opened);
    mayWrite.run();
    files.put(file, Content.of(withRoom(line)), access);
    Journal journal = new Journal(files, file, opened, mayWrite);
    journal.end = line.length;
    journal.size = line.length + ROOM;
    return journal;
  }

  private static byte[] bytes(JournalLine line) {
    return (Json.line(line) + "\n").getBytes(StandardCharsets.UTF_8);
  }

  private static byte[] withRoom(byte[] line) {
    return (new String(line, StandardCharsets.UTF_8) + "\n".repeat(ROOM))
        .getBytes(StandardCharsets.UTF_8);
  }

  /**
   * The journal that stands there, to be read only; empty when there is none.
   *
   * @throws RecordsException when something stands there that is no whole journal of this format
   */
  public static Optional<Journal> read(HostFiles files, Path file) {
    return read(files, file, () -> {});
  }

  /** What {@link #read(HostFiles, Path)} is going to read. */
  public static Glance glance(Path file) {
    return new Glance().wholes(List.of(file), MOST_BYTES);
  }

  /** The journal that stands there, to be gone on with. */
  public static Optional<Journal> read(HostFiles files, Path file, Runnable mayWrite) {
    return files
        .wholeIfThere(file, MOST_BYTES)
        .map(bytes -> read(files, file, JournalText.of(file, bytes), mayWrite));
  }

  private static Journal read(HostFiles files, Path file, JournalText text, Runnable mayWrite) {
    Journal journal = new Journal(files, file, text.opened(), mayWrite);
    journal.end = text.end();
    journal.size = text.size();
    journal.torn = text.torn();
    text.further().forEach(journal::take);
    return journal;
  }

  private void take(JournalLine line) {
    if (line instanceof JournalLine.Doing step) {
      doing.put(step.number(), step);
    } else if (line instanceof JournalLine.Proven reached) {
      proven = reached;
    } else if (line instanceof JournalLine.Undoing back) {
      undoing.put(back.number(), back.mark());
    } else if (line instanceof JournalLine.Undone back) {
      undone.add(back.number());
    } else if (line instanceof JournalLine.Ended last) {
      ended = last;
    }
  }

  /**
   * Writes a line and syncs it.
   *
   * @throws HostException when it may not stand there; a part of it may
   */
  public void write(JournalLine line) {
    mayWrite.run();
    if (torn) {
      put(("\n" + Json.line(new JournalLine.Torn()) + "\n").getBytes(StandardCharsets.UTF_8));
      torn = false;
    }
    put(bytes(line));
    take(line);
  }

  private void put(byte[] bytes) {
    try {
      files.write(file, end, bytes);
    } catch (HostException e) {
      findTheEnd();
      throw e;
    }
    end += bytes.length;
    size = Math.max(size, end);
  }

  /** How much of a line that failed stands there. */
  private void findTheEnd() {
    try {
      JournalText text = JournalText.of(file, files.whole(file, MOST_BYTES));
      end = text.end();
      size = text.size();
      torn = text.torn();
    } catch (HostException | RecordsException unreadable) {
      torn = true;
    }
  }

  /** Makes sure that there is room for taking back everything, while there is still time. */
  public void makeRoom() {
    if (size - end < ROOM_TO_TAKE_BACK) {
      byte[] room = "\n".repeat(ROOM).getBytes(StandardCharsets.UTF_8);
      mayWrite.run();
      files.write(file, size, room);
      size += room.length;
    }
  }

  /** What stands on the disk of this very delivery, whatever was believed to be written. */
  public Journal reread() {
    return read(files, file, mayWrite)
        .filter(found -> found.opened.equals(opened))
        .orElseThrow(
            () -> new RecordsException("Cannot go on: '" + file + "' is another journal by now"));
  }

  /** Its first line. */
  public JournalLine.Opened opened() {
    return opened;
  }

  /** Whether it ended. */
  public boolean isEnded() {
    return ended != null;
  }

  /** The proof, when it was reached. */
  public Optional<JournalLine.Proven> proven() {
    return Optional.ofNullable(proven);
  }

  /** Number of the next step. */
  public int nextNumber() {
    return doing.size() + 1;
  }

  /** The steps that were begun, the last one first. */
  public List<JournalLine.Doing> backwards() {
    List<JournalLine.Doing> steps = new ArrayList<>(doing.values());
    Collections.reverse(steps);
    return steps;
  }

  /** Whether a step was begun to be undone. */
  public boolean wasUndoing(int number) {
    return undoing.containsKey(number);
  }

  /** Where the log ended when a step was begun to be undone. */
  public long undoingMark(int number) {
    return undoing.get(number);
  }

  /** Whether a step was undone. */
  public boolean isUndone(int number) {
    return undone.contains(number);
  }
}

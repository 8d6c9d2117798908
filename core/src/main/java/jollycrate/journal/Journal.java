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
import jollycrate.host.HostFiles;
import jollycrate.server.Json;

/**
 * The journal of one delivery: one JSON object a line, in {@code .jolly/journal.jsonl}. A torn line
 * at the end counts as not written.
 */
public final class Journal {
  private static final int MOST_BYTES = 64 << 20;

  private final HostFiles files;
  private final Path file;
  private final JournalLine.Opened opened;
  private final Map<Integer, JournalLine.Doing> doing = new LinkedHashMap<>();
  private final Map<Integer, Long> undoing = new LinkedHashMap<>();
  private final Set<Integer> undone = new TreeSet<>();
  private JournalLine.Proven proven;
  private JournalLine.Ended ended;
  private boolean torn;

  private Journal(HostFiles files, Path file, JournalLine.Opened opened) {
    this.files = files;
    this.file = file;
    this.opened = opened;
  }

  /** Begins a journal in place of the one before. */
  public static Journal open(HostFiles files, Path file, Access access, JournalLine.Opened opened) {
    files.put(file, Content.of(Json.line(opened) + "\n"), access);
    return new Journal(files, file, opened);
  }

  /** The journal that stands there; empty when there is none. */
  public static Optional<Journal> read(HostFiles files, Path file) {
    String text = new String(files.read(file, 0, MOST_BYTES), StandardCharsets.UTF_8);
    List<JournalLine> lines = new ArrayList<>();
    for (String line : text.split("\n")) {
      Json.read(line, JournalLine.class).ifPresent(lines::add);
    }
    if (lines.isEmpty() || !(lines.get(0) instanceof JournalLine.Opened opened)) {
      return Optional.empty();
    }
    Journal journal = new Journal(files, file, opened);
    journal.torn = !text.endsWith("\n");
    lines.subList(1, lines.size()).forEach(journal::take);
    return Optional.of(journal);
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
    } else if (line instanceof JournalLine.Ended end) {
      ended = end;
    }
  }

  /** Writes a line and syncs it. */
  public void write(JournalLine line) {
    String start = torn ? "\n" : "";
    files.append(file, (start + Json.line(line) + "\n").getBytes(StandardCharsets.UTF_8));
    torn = false;
    take(line);
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

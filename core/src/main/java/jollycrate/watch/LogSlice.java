package jollycrate.watch;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import jollycrate.host.Glance;
import jollycrate.server.Cause;
import jollycrate.server.LogPlace;

/** A part of a log, up to its end, also where it was cut into several files meanwhile. */
public record LogSlice(List<Part> parts) {
  private static final int MOST_BYTES = 32 << 20;

  /**
   * What stands in one file.
   *
   * @param from offset of its first byte
   */
  private record Part(Path file, long from, byte[] bytes) {
    /**
     * Of a part that is too long the end is read: what was said last counts. A file that is shorter
     * than before is another one by now, and everything in it is newer.
     */
    static Part of(Site site, Path file, long from) {
      if (file.equals(site.log()) && site.journal().isPresent()) {
        return new Part(file, from, bytes(site.journal().get().since(from)));
      }
      long size = site.files().facts(file).size();
      long begin = Math.max(size < from ? 0 : from, size - MOST_BYTES);
      return new Part(file, begin, site.files().read(file, begin, MOST_BYTES));
    }

    public String text() {
      return new String(bytes, StandardCharsets.UTF_8);
    }

    private static byte[] bytes(String text) {
      byte[] all = text.getBytes(StandardCharsets.UTF_8);
      return Arrays.copyOfRange(all, Math.max(0, all.length - MOST_BYTES), all.length);
    }
  }

  /** Everything from a place on. */
  public static LogSlice since(Site site, LogPlace place) {
    List<Part> parts = new ArrayList<>();
    parts.add(Part.of(site, place.file(), place.offset()));
    LogTail.behind(site.files(), place.file()).forEach(file -> parts.add(Part.of(site, file, 0)));
    return new LogSlice(List.copyOf(parts));
  }

  /** What {@link #since} is going to read, where the log only grew. */
  static Glance glance(LogPlace place) {
    return new Glance().part(place.file(), place.offset(), MOST_BYTES);
  }

  /** The same with what stands in further logs behind it. */
  public LogSlice and(Site site, List<LogPlace> others) {
    List<Part> all = new ArrayList<>(parts);
    others.forEach(other -> all.add(Part.of(site, other.file(), other.offset())));
    return new LogSlice(List.copyOf(all));
  }

  public String text() {
    StringBuilder text = new StringBuilder();
    parts.forEach(part -> text.append(part.text()));
    return text.toString();
  }

  /** Where a place in the first log stands in the text. */
  int position(Site site, long offset) {
    Part first = parts.get(0);
    if (offset > first.from() && site.journal().isPresent()) {
      UnitJournal journal = site.journal().get();
      int all = first.text().length();
      int before =
          first.from() > 0
              ? journal.between(first.from(), offset).length()
              : all - journal.since(offset).length();
      return Math.min(all, Math.max(0, before));
    }
    int length = (int) Math.min(first.bytes().length, Math.max(0, offset - first.from()));
    return new String(first.bytes(), 0, length, StandardCharsets.UTF_8).length();
  }

  /** The cause with the line of the log that tells it. */
  public Cause located(Site site, Cause cause) {
    if (cause.logPosition() < 0) {
      return cause;
    }
    int position = cause.logPosition();
    int index = 0;
    while (index < parts.size() - 1 && position >= parts.get(index).text().length()) {
      position -= parts.get(index).text().length();
      index++;
    }
    Part part = parts.get(index);
    if (part.file().equals(site.log()) && site.journal().isPresent()) {
      return told(cause, part.file().toString());
    }
    String inside = part.text().substring(0, Math.min(position, part.text().length()));
    long line = 1 + linesBefore(site, part) + inside.chars().filter(c -> c == '\n').count();
    return told(cause, site.server().shown(part.file()) + ":" + line);
  }

  private static Cause told(Cause cause, String where) {
    List<String> why = new ArrayList<>(cause.why());
    why.add("told in " + where);
    return new Cause(cause.what(), cause.where(), List.copyOf(why), cause.next(), -1);
  }

  private static long linesBefore(Site site, Part part) {
    long lines = 0;
    for (long at = 0; at < part.from(); at += MOST_BYTES) {
      int length = (int) Math.min(part.from() - at, MOST_BYTES);
      for (byte one : site.files().read(part.file(), at, length)) {
        lines += one == '\n' ? 1 : 0;
      }
    }
    return lines;
  }
}

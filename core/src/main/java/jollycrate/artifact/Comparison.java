package jollycrate.artifact;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How the files of one archive differ from those of another.
 *
 * @param changes by path; a library in another version is one change
 * @param same number of files with the same content
 */
public record Comparison(List<Change> changes, int same) {
  private static final Pattern VERSIONED =
      Pattern.compile("(.*/)?([^/]+?)-(\\d[\\w.+-]*)\\.jar", Pattern.UNICODE_CHARACTER_CLASS);

  /** What became of a file. */
  public enum Kind {
    ADDED,
    REMOVED,
    CHANGED,
    /** A library in another version. */
    VERSION
  }

  /**
   * One file.
   *
   * @param path with both versions for a library
   * @param before bytes, 0 when it was not there
   * @param after bytes, 0 when it is not there
   */
  public record Change(Kind kind, String path, long before, long after) {}

  /** Compares by name, length and checksum; folders do not count. */
  public static Comparison of(List<ZipMember> before, List<ZipMember> after) {
    List<Change> changes = new ArrayList<>();
    Map<String, ZipMember> stood = new HashMap<>(before.size() * 2);
    before.stream()
        .filter(member -> !member.isFolder())
        .forEach(member -> stood.put(member.name(), member));
    int same = 0;
    for (ZipMember member : after) {
      ZipMember old = member.isFolder() ? member : stood.remove(member.name());
      if (old == null) {
        changes.add(new Change(Kind.ADDED, member.name(), 0, member.size()));
      } else if (old.crc() != member.crc() || old.size() != member.size()) {
        changes.add(new Change(Kind.CHANGED, member.name(), old.size(), member.size()));
      } else if (!member.isFolder()) {
        same++;
      }
    }
    for (ZipMember gone : stood.values()) {
      changes.add(new Change(Kind.REMOVED, gone.name(), gone.size(), 0));
    }
    return new Comparison(paired(changes), same);
  }

  private static List<Change> paired(List<Change> changes) {
    List<Change> paired = new ArrayList<>(changes);
    for (Change removed : changes) {
      Matcher old = VERSIONED.matcher(removed.path());
      if (removed.kind() == Kind.REMOVED && old.matches()) {
        changes.stream()
            .filter(added -> added.kind() == Kind.ADDED && isOtherVersion(old, added.path()))
            .findFirst()
            .ifPresent(
                added -> {
                  paired.remove(added);
                  paired.remove(removed);
                  paired.add(
                      new Change(
                          Kind.VERSION,
                          path(old) + " " + old.group(3) + " -> " + version(added.path()),
                          removed.before(),
                          added.after()));
                });
      }
    }
    paired.sort(Comparator.comparing(Change::kind).thenComparing(Change::path));
    return List.copyOf(paired);
  }

  private static boolean isOtherVersion(Matcher old, String path) {
    Matcher matcher = VERSIONED.matcher(path);
    return matcher.matches() && path(matcher).equals(path(old));
  }

  private static String path(Matcher matcher) {
    return (matcher.group(1) == null ? "" : matcher.group(1)) + matcher.group(2);
  }

  private static String version(String path) {
    Matcher matcher = VERSIONED.matcher(path);
    return matcher.matches() ? matcher.group(3) : "";
  }

  /** Number of changes of a kind. */
  public int count(Kind kind) {
    return (int) changes.stream().filter(change -> change.kind() == kind).count();
  }

  /** Whether nothing differs. */
  public boolean isEmpty() {
    return changes.isEmpty();
  }
}

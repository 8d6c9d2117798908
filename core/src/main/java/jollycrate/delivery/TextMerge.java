package jollycrate.delivery;

import com.github.difflib.DiffUtils;
import com.github.difflib.patch.AbstractDelta;
import com.github.difflib.patch.Chunk;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;

/** Puts two changes of one text together. */
final class TextMerge {
  private static final String LINES = "(?<=\n)";
  private static final String WORDS = "(?<=\\s)(?=\\S)|(?<=\\S)(?=\\s)";

  /** How far apart two changes have to be: an inserted line must not touch a changed one. */
  private static final int APART = 0;

  private static final int TOUCHING = -1;

  private TextMerge() {}

  /**
   * What two changes of a text come to.
   *
   * @param text with both changes
   * @param clashes what both change, as the first one has it; then there is no text
   */
  record Merged(String text, List<String> clashes) {}

  /** Both changes of {@code base}, by lines; a change that both make is made once. */
  static Merged byLines(String base, String one, String other) {
    return of(base, one, other, LINES, APART);
  }

  /**
   * The same, word by word where both change the same line: for texts of which no line tells by one
   * word whom the others are about.
   */
  static Merged byWords(String base, String one, String other) {
    Merged merged = byLines(base, one, other);
    return merged.clashes.isEmpty() ? merged : of(base, one, other, WORDS, TOUCHING);
  }

  private static Merged of(String base, String one, String other, String between, int apart) {
    List<String> parts = List.of(base.split(between));
    List<AbstractDelta<String>> ones = changes(parts, one, between);
    List<AbstractDelta<String>> others = new ArrayList<>(changes(parts, other, between));
    others.removeAll(ones);
    List<String> clashes =
        ones.stream()
            .filter(delta -> others.stream().anyMatch(second -> meet(delta, second, apart)))
            .map(TextMerge::shown)
            .toList();
    if (!clashes.isEmpty()) {
      return new Merged("", clashes);
    }
    List<String> merged = new ArrayList<>(parts);
    Stream.concat(ones.stream(), others.stream())
        .sorted(Comparator.comparing(AbstractDelta::getSource, TextMerge::lastFirst))
        .forEach(delta -> apply(merged, delta));
    return new Merged(String.join("", merged), clashes);
  }

  private static List<AbstractDelta<String>> changes(
      List<String> parts, String text, String between) {
    return DiffUtils.diff(parts, List.of(text.split(between))).getDeltas();
  }

  /** Of two at one place, what is changed comes before what is put in front of it. */
  private static int lastFirst(Chunk<String> one, Chunk<String> other) {
    int byPlace = Integer.compare(other.getPosition(), one.getPosition());
    return byPlace == 0 ? Integer.compare(other.size(), one.size()) : byPlace;
  }

  /** Whether they change a common part, or put something at one place. */
  private static boolean meet(AbstractDelta<String> one, AbstractDelta<String> other, int apart) {
    Chunk<String> a = one.getSource();
    Chunk<String> b = other.getSource();
    boolean bothInsert = a.size() == 0 && b.size() == 0;
    boolean oneInserts = a.size() == 0 || b.size() == 0;
    int room = bothInsert ? 0 : oneInserts ? apart : -1;
    return a.getPosition() <= b.getPosition() + b.size() + room
        && b.getPosition() <= a.getPosition() + a.size() + room;
  }

  private static String shown(AbstractDelta<String> delta) {
    List<String> now = delta.getTarget().getLines();
    return String.join("", now.isEmpty() ? delta.getSource().getLines() : now).strip();
  }

  private static void apply(List<String> text, AbstractDelta<String> delta) {
    int from = delta.getSource().getPosition();
    List<String> place = text.subList(from, from + delta.getSource().size());
    place.clear();
    place.addAll(delta.getTarget().getLines());
  }
}

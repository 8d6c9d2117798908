package jollycrate.xml;

import java.util.Comparator;
import java.util.List;

/**
 * Replaces the characters {@code from} (inclusive) to {@code to} (exclusive) of a text; everything
 * else stays byte for byte.
 */
public record Splice(int from, int to, String replacement) {

  /** An insertion before the character at {@code position}. */
  public static Splice insert(int position, String text) {
    return new Splice(position, position, text);
  }

  /** Applies splices that do not overlap, in any order. */
  public static String apply(String text, List<Splice> splices) {
    StringBuilder result = new StringBuilder(text);
    splices.stream()
        .sorted(Comparator.comparingInt(Splice::from).thenComparingInt(Splice::to).reversed())
        .forEach(splice -> result.replace(splice.from, splice.to, splice.replacement));
    return result.toString();
  }
}

package jollycrate.app;

import java.util.Collection;
import java.util.Comparator;
import java.util.Optional;

/** Finds what somebody probably meant. */
public final class Nearest {
  private Nearest() {}

  /** The known word that needs the fewest changed letters, if it is near at all. */
  public static Optional<String> to(String word, Collection<String> known) {
    return known.stream()
        .min(Comparator.comparingInt(candidate -> distance(word, candidate)))
        .filter(candidate -> distance(word, candidate) <= Math.max(1, candidate.length() / 2));
  }

  /** The Levenshtein distance of two words. */
  private static int distance(String a, String b) {
    int[] row = new int[b.length() + 1];
    for (int j = 0; j <= b.length(); j++) {
      row[j] = j;
    }
    for (int i = 1; i <= a.length(); i++) {
      int diagonal = row[0];
      row[0] = i;
      for (int j = 1; j <= b.length(); j++) {
        int change = diagonal + (a.charAt(i - 1) == b.charAt(j - 1) ? 0 : 1);
        diagonal = row[j];
        row[j] = Math.min(change, 1 + Math.min(row[j], row[j - 1]));
      }
    }
    return row[b.length()];
  }
}

package jollycrate.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Two changes of a text come together, or what both change is named. */
class TextMergeTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "clash",
      value = {
        "a/b/c       | a/B/c         | a/b/C       | a/B/C",
        "a/b/c       | a/x/b/c       | a/b/y/c     | a/x/b/y/c",
        "a/b/c       | A/b/c         | A/b/c       | A/b/c",
        "a/b/c       | b/c           | a/b         | b",
        "a/b         | a/b/          | A/b         | A/b/",
        "<a b='1'>/z | <a c='2' b='1'>/z | <a b='2'>/z | <a c='2' b='2'>/z",
        "<a b='1'>/z | <a b='1' c='2'>/z | <a b='2'>/z | clash",
        "a/b/c       | a/X/c         | a/Y/c       | clash",
        "a/c         | a/X/c         | a/Y/c       | clash",
        "a/b/c       | a/c           | a/B/c       | clash"
      })
  void changesComeTogether(String base, String one, String other, String merged) {
    TextMerge.Merged result = TextMerge.byWords(lines(base), lines(one), lines(other));
    assertThat(result.clashes().isEmpty()).as(result.toString()).isEqualTo(merged != null);
    assertThat(result.text()).isEqualTo(merged == null ? "" : lines(merged));
    boolean words = base.startsWith("<");
    assertThat(TextMerge.byLines(lines(base), lines(one), lines(other)).clashes().isEmpty())
        .isEqualTo(merged != null && !words);
  }

  private static String lines(String row) {
    return row.replace('/', '\n');
  }

  /**
   * Each change alone is itself; in either order both come to the same, and hold every new line.
   */
  @Test
  void neitherChangeIsLost() {
    Random random = new Random(7);
    for (int i = 0; i < 2000; i++) {
      List<String> base = new ArrayList<>();
      for (int line = 0; line < 12; line++) {
        base.add("line" + line + "\n");
      }
      String text = String.join("", base);
      String one = changed(base, random, "one");
      String other = changed(base, random, "other");
      assertThat(TextMerge.byWords(text, one, text).text()).isEqualTo(one);
      TextMerge.Merged merged = TextMerge.byWords(text, one, other);
      assertThat(TextMerge.byWords(text, other, one).text()).isEqualTo(merged.text());
      if (merged.clashes().isEmpty()) {
        (one + other)
            .lines()
            .filter(line -> line.startsWith("o"))
            .forEach(line -> assertThat(merged.text()).contains(line + "\n"));
      }
    }
  }

  private static String changed(List<String> base, Random random, String by) {
    List<String> lines = new ArrayList<>(base);
    int at = random.nextInt(lines.size());
    switch (random.nextInt(3)) {
      case 0 -> lines.set(at, by + "\n");
      case 1 -> lines.add(at, by + "\n");
      default -> lines.remove(at);
    }
    return String.join("", lines);
  }
}

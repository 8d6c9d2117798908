package jollycrate.file;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

class PlaceholderTest {
  @Test
  void isFoundAndReplaced() {
    Placeholder found = Placeholder.in("a ${b:-c} ${d}", 0).orElseThrow();
    assertThat(found).isEqualTo(new Placeholder("b:-c", 2, 9));
    assertThat(found.replacedIn("a ${b:-c} ${d}", "$1")).isEqualTo("a $1 ${d}");
    assertThat(Placeholder.in("a ${b:-c} ${d}", 9).orElseThrow().inside()).isEqualTo("d");
    assertThat(Placeholder.in("${}", 0).orElseThrow().inside()).isEmpty();
  }

  /** Minutes, where each opening looks for its end anew. */
  @Test
  @Timeout(60)
  void anyNumberOfOpeningsIsLookedThroughOnce() {
    assertThat(Placeholder.in("}" + "${".repeat(4_000_000), 0)).isEmpty();
  }
}

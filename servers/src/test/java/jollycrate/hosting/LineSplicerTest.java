package jollycrate.hosting;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class LineSplicerTest {
  private final LineSplicer lines = new LineSplicer("=") {};

  @ParameterizedTest
  @ValueSource(
      strings = {"", "#\n", "a=1\n", "a=1", "a=1\r\n#b\r\n", "a=1\r\nbb=2", "\n\n", "bb=b=1\n"})
  void whatOthersWroteStaysToTheByte(String others) {
    String one = lines.insert(others, "b", "b=1");
    String two = lines.insert(one, "c", "c=2");
    assertThat(lines.find(two, "b")).contains("b=1");
    assertThat(lines.remove(lines.remove(two, "b"), "c")).isEqualTo(others);
    assertThat(lines.remove(lines.remove(two, "c"), "b")).isEqualTo(others);
  }

  @Test
  void anotherOfTheSameKeyTakesItsPlace() {
    assertThat(lines.insert("a=1\r\nb=2\r\nc=3", "b", "b=4")).isEqualTo("a=1\r\nb=4\r\nc=3");
    assertThat(lines.find("ab=1\n", "b")).isEmpty();
  }
}

package jollycrate.file;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlainTextTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '"',
      textBlock =
          """
          red ^[[31mbell^[[0m           | red bell       | red ^[[31mbell^[[0m
          up ^[[2Aand away^[[K          | up and away    | up and away
          ^[]0;title^Gbell              | bell           | bell
          ^[]8;;http://x^[\\link^[]8;;^[\\ | link         | link
          ^[[?25lhidden^[[1             | hidden         | hidden
          ^[Pdevice^[\\bell^[(B          | bell           | bell
          two^M^H^Glines                | twolines       | twolines
          """)
  void nothingSteersATerminal(String written, String plain, String coloured) {
    assertThat(PlainText.of(real(written))).isEqualTo(plain);
    assertThat(PlainText.withLooks(real(written))).isEqualTo(real(coloured));
  }

  private static String real(String written) {
    return written
        .replace("^[", "\u001b")
        .replace("^G", "\u0007")
        .replace("^M", "\r")
        .replace("^H", "\b");
  }
}

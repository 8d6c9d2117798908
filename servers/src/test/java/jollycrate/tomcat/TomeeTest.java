package jollycrate.tomcat;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TomeeTest {
  /** What is taken away with a release never stands outside of the server's folder. */
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      nullValues = "none",
      textBlock =
          """
          tomee.other = x                | /srv/b/work/unpacked/a-1
          tomee.unpack.dir = temp/x      | /srv/b/temp/x/a-1
          tomee.unpack.dir=..            | none
          tomee.unpack.dir = /           | none
          tomee.unpack.dir: x/../../c    | none
          """)
  void whereItUnpacks(String options, Path expected) {
    assertThat(Tomee.unpacked(Path.of("/srv/b"), Optional.of(options), Path.of("/srv/b/d/a-1.war")))
        .isEqualTo(Optional.ofNullable(expected));
  }
}

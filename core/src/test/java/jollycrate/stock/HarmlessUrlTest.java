package jollycrate.stock;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A trial connection makes no database and runs no script. */
class HarmlessUrlTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          jdbc:h2:file:./data/x                   | jdbc:h2:file:./data/x;IFEXISTS=TRUE;ACCESS_MODE_DATA=r
          jdbc:h2:./x;AUTO_SERVER=TRUE            | jdbc:h2:./x;AUTO_SERVER=TRUE;IFEXISTS=TRUE
          jdbc:h2:./x;ifexists=true               | jdbc:h2:./x;ifexists=true;ACCESS_MODE_DATA=r
          jdbc:h2:./x;INIT=RUNSCRIPT FROM 'a'\\;B;MODE=DB2 | jdbc:h2:./x;MODE=DB2;IFEXISTS=TRUE;ACCESS_MODE_DATA=r
          jdbc:h2:mem:x                           | jdbc:h2:mem:x
          jdbc:h2:tcp://db.example/x              | jdbc:h2:tcp://db.example/x
          jdbc:hsqldb:file:x                      | jdbc:hsqldb:file:x;ifexists=true
          jdbc:derby:x;create=true                | jdbc:derby:x
          jdbc:postgresql://db.example/x          | jdbc:postgresql://db.example/x
          """)
  void isChangedSoThatItOnlyLooks(String url, String harmless) {
    assertThat(HarmlessUrl.of(url).url()).isEqualTo(harmless);
  }
}

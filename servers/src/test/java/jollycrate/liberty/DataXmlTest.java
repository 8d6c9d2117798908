package jollycrate.liberty;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.DataSource;
import org.junit.jupiter.api.Test;

class DataXmlTest {
  private static final DataSource BIKES =
      new DataSource(
          "jdbc/bikes",
          "jdbc:h2:file:./data/bikes",
          "bikes",
          Optional.empty(),
          Path.of("h2.jar"),
          Optional.empty(),
          4,
          Duration.ofSeconds(3),
          List.of());

  private static DataXml data(String application, String password) {
    DataXml data = new DataXml(application, Set.of(Path.of("/srv/h2.jar")));
    data.add(BIKES, "org.h2.Driver", password);
    return data;
  }

  @Test
  void anotherPasswordIsAnotherDataSource() {
    String bound = data("bell", "a<b").boundAt(BIKES);
    assertThat(bound).startsWith(DataXml.names("bell")).endsWith("/jdbc/bikes");
    assertThat(data("bell", "a<b").boundAt(BIKES)).isEqualTo(bound);
    assertThat(data("bell", "a<c").boundAt(BIKES)).isNotEqualTo(bound);
    assertThat(data("desk", "a<b").boundAt(BIKES)).isNotEqualTo(bound);
    assertThat(data("bell", "a<b").text()).contains("jndiName=\"" + bound + "\"");
  }
}

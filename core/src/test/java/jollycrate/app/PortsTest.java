package jollycrate.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Optional;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Whatever a folder of applications is called, its address is one. */
class PortsTest {
  @ParameterizedTest
  @CsvSource({
    "127.0.0.1, /shop/, http://127.0.0.1:8080/shop/",
    "0.0.0.0, /two words/, http://127.0.0.1:8080/two%20words/",
    "::1, /100%, http://[::1]:8080/100%25",
    "10.0.0.1, '', http://10.0.0.1:8080"
  })
  void aPathIsReachedThere(String address, String path, String url) {
    Ports ports = new Ports(address, 8080, Optional.empty(), Optional.of(8081), Optional.empty());
    assertThat(ports.at(path)).hasToString(url);
    assertThat(ports.atAdmin("/a b").orElseThrow()).hasToString("http://127.0.0.1:8081/a%20b");
  }
}

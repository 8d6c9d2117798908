package jollycrate.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
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

  @ParameterizedTest
  @CsvSource({
    "http://127.0.0.1:8080/, true",
    "http://localhost:8080/a, true",
    "http://127.0.0.1/, false",
    "http://127.0.0.1:9000/, false",
    "https://127.0.0.1:8080/, false",
    "http://shop.example:8080/, false"
  })
  void itsOwnListenerIsNoProxy(String url, boolean own) {
    Ports ports =
        new Ports("127.0.0.1", 8080, Optional.empty(), Optional.empty(), Optional.empty());
    assertThat(ports.isOwn(URI.create(url))).isEqualTo(own);
    URI reached = URI.create(url.replace("127.0.0.1", "10.0.0.9").replace("localhost", "app1"));
    assertThat(ports.on("app1").reachedAt("10.0.0.9").isOwn(reached)).isEqualTo(own);
  }
}

package jollycrate.check;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyStore;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.SSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A team's own certificates are trusted where its file is named, and nowhere else. */
class TrustedCertificatesTest {
  private static final String PASSWORD = "chain-and-oil";

  @TempDir Path folder;

  private void keytool(String... arguments) throws IOException, InterruptedException {
    String keytool = Path.of(System.getProperty("java.home"), "bin/keytool").toString();
    List<String> command = new ArrayList<>(List.of(keytool));
    command.addAll(List.of(arguments));
    command.addAll(List.of("-alias", "a", "-keystore", "keys.p12", "-storepass", PASSWORD));
    Process process =
        new ProcessBuilder(command).directory(folder.toFile()).redirectErrorStream(true).start();
    String told = new String(process.getInputStream().readAllBytes());
    assertThat(process.waitFor()).as(told).isZero();
  }

  private SSLContext keys() throws Exception {
    KeyStore keys = KeyStore.getInstance("PKCS12");
    try (InputStream in = Files.newInputStream(folder.resolve("keys.p12"))) {
      keys.load(in, PASSWORD.toCharArray());
    }
    KeyManagerFactory managers =
        KeyManagerFactory.getInstance(KeyManagerFactory.getDefaultAlgorithm());
    managers.init(keys, PASSWORD.toCharArray());
    SSLContext context = SSLContext.getInstance("TLS");
    context.init(managers.getKeyManagers(), null, null);
    return context;
  }

  private static Answer ask(URI url, Optional<Path> trust) {
    try (HttpRequester requester = new HttpRequester(() -> false, Socket::new, trust)) {
      return requester.send(Requester.Request.get(url), Duration.ofSeconds(20));
    }
  }

  @Test
  void ofItsFileAlone() throws Exception {
    keytool("-genkeypair", "-keyalg", "EC", "-dname", "CN=bench", "-ext", "SAN=ip:127.0.0.1");
    keytool("-exportcert", "-rfc", "-file", "team.pem");
    Path none = Files.writeString(folder.resolve("none.pem"), "");
    HttpsServer server =
        HttpsServer.create(new InetSocketAddress(InetAddress.getByName("127.0.0.1"), 0), 0);
    server.setHttpsConfigurator(new HttpsConfigurator(keys()));
    server.createContext("/", exchange -> exchange.sendResponseHeaders(204, -1));
    server.start();
    try {
      URI url = URI.create("https://127.0.0.1:" + server.getAddress().getPort() + "/");
      assertThat(ask(url, Optional.of(folder.resolve("team.pem"))).status()).isEqualTo(204);
      assertThat(ask(url, Optional.empty()).why()).isEqualTo(Answer.Why.NO_TRUST);
      assertThat(ask(url, Optional.of(none)).failure()).contains("holds no certificate");
    } finally {
      server.stop(0);
    }
  }
}

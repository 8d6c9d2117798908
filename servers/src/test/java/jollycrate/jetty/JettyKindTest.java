package jollycrate.jetty;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import jollycrate.server.ServerKind;
import jollycrate.server.ServerKindContract;
import org.junit.jupiter.api.Test;

/** Jetty, as far as its files go. */
class JettyKindTest extends ServerKindContract {
  @Override
  protected ServerKind kind() {
    return new JettyKind();
  }

  @Override
  protected Path installation(Path instance) throws IOException {
    Path library = Files.createDirectories(folder.resolve("jetty/lib"));
    Files.writeString(library.resolve("jetty-server-12.1.12.jar"), "");
    return library.getParent();
  }

  @Override
  protected String handed() {
    return "";
  }

  @Test
  void aProcessIsKnownHoweverItWasStarted() {
    JettyProcesses processes = new JettyProcesses();
    List<String> usual = List.of("java", "-jar", "/opt/jetty/start.jar");
    assertThat(processes.isOne(usual)).isTrue();
    assertThat(processes.folder(usual)).contains(Path.of(""));
    assertThat(processes.installation(usual)).contains(Path.of("/opt/jetty"));
    List<String> told = List.of("java", "-jar", "start.jar", "jetty.base=/srv/shop");
    assertThat(processes.folder(told)).contains(Path.of("/srv/shop"));
    assertThat(processes.isOne(List.of("java", "-jar", "/opt/shop/shop.jar"))).isFalse();
  }
}

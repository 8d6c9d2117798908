package jollycrate.jetty;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import jollycrate.server.Occupant;
import jollycrate.server.ServerKind;
import jollycrate.server.ServerKindContract;
import jollycrate.server.Stock;
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

  @Test
  void aContextPathIsWhatAPropertySays() throws IOException {
    Stock before = stock();
    Path base = before.server().folder();
    Path webapps = Files.createDirectories(base.resolve("webapps"));
    Files.writeString(
        Files.createDirectories(base.resolve("start.d")).resolve("bell.ini"), "bell.path=/ring\n");
    String set =
        "<Configure><Set name='contextPath'><Property name='%s' default='/by-default'/></Set></Configure>";
    Files.writeString(webapps.resolve("bell.xml"), set.formatted("bell.path"));
    Files.writeString(webapps.resolve("pump.xml"), set.formatted("pump.path"));
    Files.writeString(webapps.resolve("lamp.war"), "");
    Files.writeString(webapps.resolve("lamp.properties"), "jetty.deploy.contextPath: /light\n");
    Files.writeString(webapps.resolve("lock.war"), "");
    assertThat(kind().occupants(stock()))
        .extracting(Occupant::contextPath)
        .contains("/ring", "/by-default", "/light", "/lock");
  }
}

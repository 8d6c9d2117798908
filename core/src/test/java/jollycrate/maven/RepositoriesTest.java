package jollycrate.maven;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import jollycrate.app.MavenCoordinates;
import org.apache.commons.codec.digest.DigestUtils;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The user's mirror with a password, asked as his settings say. */
class RepositoriesTest {
  private static final String ALLOWED =
      "Basic " + Base64.getEncoder().encodeToString("mechanic:chain".getBytes(UTF_8));

  private final List<String> asked = new ArrayList<>();
  private HttpServer mirror;
  @TempDir private Path folder;

  @BeforeEach
  void begin() throws IOException {
    mirror = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    mirror.createContext("/", this::answer);
    mirror.start();
    settings("chain", "");
    publish("org/spokes/spokes/1.5.0/spokes-1.5.0.war", "the application");
    publish("org/spokes/spokes/1.5.0/spokes-1.5.0.pom", pom("spokes", "1.5.0", ""));
    publish("org/spokes/pump/2.0/pump-2.0.jar", "the driver");
    publish("org/spokes/pump/2.0/pump-2.0.pom", pom("pump", "2.0", ""));
    publish("org/spokes/lamp/3.1/lamp-3.1.jar", "a library");
    publish(
        "org/spokes/lamp/3.1/lamp-3.1.pom", pom("lamp", "3.1", library("pump", "2.0", "runtime")));
  }

  @AfterEach
  void end() {
    mirror.stop(0);
  }

  private void answer(HttpExchange exchange) throws IOException {
    String path = exchange.getRequestURI().getPath();
    asked.add(path);
    Path file = folder.resolve("published" + path);
    byte[] body = Files.isRegularFile(file) ? Files.readAllBytes(file) : new byte[0];
    boolean allowed = ALLOWED.equals(exchange.getRequestHeaders().getFirst("Authorization"));
    exchange.getResponseHeaders().add("WWW-Authenticate", "Basic realm=\"spokes\"");
    int status = !allowed ? 401 : Files.isRegularFile(file) ? 200 : 404;
    exchange.sendResponseHeaders(status, status == 200 ? body.length : -1);
    if (status == 200) {
      exchange.getResponseBody().write(body);
    }
    exchange.close();
  }

  private void settings(String password, String more) throws IOException {
    write(
        "home/.m2/settings.xml",
        """
        <settings>
          <localRepository>%s</localRepository>%s
          <mirrors><mirror><id>shop</id><mirrorOf>*</mirrorOf><url>http://127.0.0.1:%s/</url></mirror></mirrors>
          <servers><server><id>shop</id><username>mechanic</username><password>${env.PUMP}</password></server></servers>
        </settings>
        """
            .formatted(folder.resolve("local"), more, mirror.getAddress().getPort()));
    write("password", password);
  }

  private void publish(String path, String text) throws IOException {
    write("published/" + path, text);
    write("published/" + path + ".sha1", DigestUtils.sha1Hex(text));
  }

  private static String pom(String artifact, String version, String libraries) {
    return """
    <project><modelVersion>4.0.0</modelVersion><groupId>org.spokes</groupId>
    <artifactId>%s</artifactId><version>%s</version><dependencies>%s</dependencies></project>
    """
        .formatted(artifact, version, libraries);
  }

  private static String library(String artifact, String version, String scope) {
    return "<dependency><groupId>org.spokes</groupId><artifactId>%s</artifactId>%s<scope>%s</scope></dependency>"
        .formatted(artifact, version.isEmpty() ? "" : "<version>" + version + "</version>", scope);
  }

  private void write(String path, String text) throws IOException {
    Path file = folder.resolve(path);
    Files.createDirectories(file.getParent());
    Files.writeString(file, text);
  }

  private Repositories repositories() throws IOException {
    return Repositories.of(
        Files.createDirectories(folder.resolve("project")),
        folder.resolve("home"),
        Map.of("PUMP", Files.readString(folder.resolve("password"))),
        new Fetching(doing -> {}, () -> false));
  }

  private Path file(String coordinates) throws IOException {
    return repositories().file(MavenCoordinates.of(coordinates));
  }

  @Test
  void isFetchedOnceThroughTheMirrorOfTheSettingsWithItsPassword() throws IOException {
    Path war = file("maven:org.spokes:spokes:1.5.0:war");
    assertThat(war).hasContent("the application").startsWith(folder.resolve("local"));
    asked.clear();
    assertThat(file("maven:org.spokes:spokes:1.5.0:war")).isEqualTo(war);
    assertThat(asked).isEmpty();
    settings("chain", "<offline>true</offline>");
    assertThat(file("maven:org.spokes:spokes:1.5.0:war")).isEqualTo(war);
    assertRefused("maven:org.spokes:pump:2.0", "offline");
  }

  @Test
  void whatCannotBeHadIsSaidWithItsReason() throws IOException {
    assertRefused(
        "maven:org.spokes:spokes:9:war", "it is neither in " + folder.resolve("local"), "shop");
    assertRefused("maven:org.spokes:spokes:1.5.0", "a WAR is maven:org.spokes:spokes:1.5.0:war");
    write("published/org/spokes/pump/2.0/pump-2.0.jar", "a changed driver");
    assertRefused("maven:org.spokes:pump:2.0", "does not have the checksum");
    assertThat(folder.resolve("local/org/spokes/pump/2.0/pump-2.0.jar")).doesNotExist();
    write("password", "rust");
    assertRefused("maven:org.spokes:spokes:1.5.0:war", "credentials", "<server>");
    mirror.stop(0);
    assertRefused("maven:org.spokes:spokes:1.5.0:war", "cannot be reached", "refused");
    write("home/.m2/settings.xml", "<settings><oops></settings>");
    assertRefused("maven:org.spokes:spokes:1.5.0:war", "settings.xml", "Fix the file");
  }

  private void assertRefused(String coordinates, String... reasons) {
    assertThatThrownBy(() -> file(coordinates))
        .isInstanceOf(MavenException.class)
        .hasMessageContainingAll(reasons)
        .hasMessageNotContainingAny("chain", "rust");
  }

  @Test
  void aProjectHasTheLibrariesThatItsModelSays() throws IOException {
    write(
        "parent/pom.xml",
        pom("all", "1", "")
            .replace(
                "<version>1</version>",
                "<version>1</version><packaging>pom</packaging><dependencyManagement><dependencies>"
                    + library("lamp", "${lamp.version}", "compile")
                    + "</dependencies></dependencyManagement>"
                    + "<properties><lamp.version>3.1</lamp.version></properties>"));
    write(
        "project/pom.xml",
        pom("shop", "1", library("lamp", "", "compile") + library("spokes", "1.5.0", "test"))
            .replace(
                "<groupId>",
                "<parent><groupId>org.spokes</groupId><artifactId>all</artifactId><version>1</version>"
                    + "<relativePath>../parent/pom.xml</relativePath></parent><groupId>"));
    MavenProject project = new MavenProject(repositories(), folder.resolve("project/pom.xml"));
    assertThat(project.ofRunTime())
        .extracting(file -> file.getFileName().toString())
        .containsExactly("lamp-3.1.jar", "pump-2.0.jar");
    assertThat(project.library(MavenCoordinates.of("maven:org.spokes:pump")).orElseThrow())
        .hasContent("the driver");
    assertThat(project.library(MavenCoordinates.of("maven:org.spokes:bell"))).isEmpty();
    assertThat(asked).noneMatch(path -> path.endsWith(".war"));
  }

  @Test
  void whatTheProjectAlwaysTellsMavenHolds() throws IOException {
    Files.move(folder.resolve("home/.m2/settings.xml"), folder.resolve("other.xml"));
    write(
        "project/.mvn/maven.config",
        "-T 4\n-s ../other.xml\n-Dmaven.repo.local=" + folder.resolve("own"));
    assertThat(file("maven:org.spokes:pump:2.0")).startsWith(folder.resolve("own"));
    assertThat(repositories().needMaven()).isFalse();
    write("project/.mvn/maven.config", "--settings=../other.xml\n-Pshop");
    assertThat(repositories().needMaven()).isTrue();
    write("project/.mvn/maven.config", "-s ../none.xml");
    assertRefused("maven:org.spokes:pump:2.0", "none.xml", ".mvn/maven.config");
  }
}

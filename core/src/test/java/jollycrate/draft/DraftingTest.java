package jollycrate.draft;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** A draft is right, or asks. */
class DraftingTest {
  private static final String POM =
      "<project><groupId>spokes</groupId><artifactId>desk</artifactId><version>1.4</version>"
          + "<packaging>%s</packaging>%s<build><plugins><plugin><artifactId>%s</artifactId></plugin>"
          + "</plugins></build></project>";

  @TempDir private Path folder;

  private void file(String name, String text) throws IOException {
    Path file = folder.resolve(name);
    Files.createDirectories(file.getParent());
    Files.writeString(file, text);
  }

  private String draft() throws IOException {
    Files.deleteIfExists(folder.resolve("jolly.toml"));
    return Drafting.of(folder).text();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "jar | spring-boot-maven-plugin | ''       | artifact = \"target/desk-1.4.jar\" | port = { argument = \"--server.port={value}\" }",
        "war | spring-boot-maven-plugin | ''       | artifact = \"target/desk-1.4.war\" | -DskipTests",
        "jar | quarkus-maven-plugin     | uber-jar | artifact = \"target/desk-1.4-runner.jar\" | quarkus.http.port",
        "jar | quarkus-maven-plugin     | ''       | # tell: artifact = \"target/...\" | quarkus.http.port",
        "jar | maven-shade-plugin       | ''       | artifact = \"target/desk-1.4.jar\" | # tell: port",
        "jar | maven-assembly-plugin    | ''       | # tell: artifact = \"target/...\" | # tell: port",
        "jar | maven-jar-plugin         | ''       | shape = \"merged-jar\" | # tell: port",
        "war | maven-war-plugin         | ''       | web = \"src/main/webapp\" | libraries: those"
      })
  void ofAMavenProject(String packaging, String plugin, String type, String one, String other)
      throws IOException {
    String properties =
        "<properties><quarkus.package.jar.type>"
            + type
            + "</quarkus.package.jar.type></properties>";
    file("pom.xml", POM.formatted(packaging, properties, plugin));
    if (packaging.equals("war")) {
      file("src/main/webapp/index.html", "<p>");
      file("target/desk-1.4.war", "none that can be read");
    }
    String draft = draft();
    assertThat(draft).contains("name = \"desk\"", "version = \"pom:pom.xml\"", one, other);
    assertThat(draft).doesNotContain("classes = ");
    file("src/main/java/Desk.java", "class Desk {}");
    assertThat(draft().contains("classes = ")).isEqualTo(draft.contains("[pack]"));
  }

  @Test
  void ofAGradleProject() throws IOException {
    file("settings.gradle", "rootProject.name = 'desk'\n");
    file(
        "build.gradle", "plugins { id 'org.springframework.boot' version '3.5.0' }\nversion = '2'");
    assertThat(draft())
        .contains(
            "name = \"desk\"",
            "version = \"2\"",
            "artifact = \"build/libs/desk-2.jar\"",
            "--server.port");
    file("build.gradle", "plugins { id 'war' }\nversion = providers.exec {}");
    assertThat(draft())
        .contains("[pack]", "# tell: libs", "# tell: version")
        .doesNotContain("[program]");
  }

  @Test
  void ofPagesAndOfWhatHoldsOthers() throws IOException {
    file(
        "package.json", "{\"name\": \"counter\", \"scripts\": {\"build\": \"tsc && vite build\"}}");
    assertThat(draft()).contains("shape = \"front-end\"", "web = \"dist\"");
    file("vite.config.ts", "export default { build: { outDir: '../pages' } }");
    assertThat(draft()).contains("# tell: web");
    file("pom.xml", POM.formatted("pom", "<modules><module>app</module></modules>", "x"));
    file("app/pom.xml", POM.formatted("war", "", "x"));
    assertThatThrownBy(this::draft).hasMessageContaining("Go to a web application of it: app");
  }
}

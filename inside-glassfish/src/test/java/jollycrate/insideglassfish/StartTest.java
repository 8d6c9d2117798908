package jollycrate.insideglassfish;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StartTest {
  @TempDir Path folder;
  private Path root;
  private Path shipped;

  @BeforeEach
  void server() throws IOException {
    root = folder.resolve("state");
    shipped = folder.resolve("shipped");
    write(shipped.resolve("domain.xml"), "theirs");
    write(shipped.resolve("server.policy"), "grant {};");
    write(folder.resolve("configuration/domain.xml"), "ours");
    Files.createDirectory(folder.resolve("lib"));
    Files.createDirectories(folder.resolve("deployments"));
  }

  private static void write(Path file, String text) throws IOException {
    Files.createDirectories(file.getParent());
    Files.writeString(file, text);
  }

  /** Whatever the server wrote into its copy, the next start begins with what stands in ours. */
  @Test
  void eachStartBeginsWithWhatIsConfigured() throws IOException {
    for (int start = 0; start < 2; start++) {
      Start.prepare(folder, root, shipped);
      assertThat(root.resolve("config/domain.xml")).hasContent("ours");
      assertThat(root.resolve("config/server.policy")).content().containsOnlyOnce("AllPermission");
      assertThat(root.resolve("lib").toRealPath()).isEqualTo(folder.resolve("lib").toRealPath());
      Files.writeString(root.resolve("config/domain.xml"), "ours, and what was deployed");
    }
    assertThat(folder.resolve("configuration/domain.xml")).hasContent("ours");
  }

  /** Archives stay, and so does what the applications and the server keep. */
  @Test
  void onlyWhatWasNotedOfEarlierDeploymentsGoes() throws IOException {
    Path archives = folder.resolve("deployments");
    write(archives.resolve("bell.war"), "archive");
    write(archives.resolve("bell.war_deployed"), "");
    write(archives.resolve("bike.war_deployFailed"), "");
    write(archives.resolve(".autodeploystatus/bell.war"), "");
    write(root.resolve("applications/bell/WEB-INF/web.xml"), "");
    write(root.resolve("databases/ejbtimer/log"), "kept");
    Start.prepare(folder, root, shipped);
    assertThat(archives.toFile().list()).containsExactlyInAnyOrder("bell.war", ".autodeploystatus");
    assertThat(archives.resolve(".autodeploystatus")).isEmptyDirectory();
    assertThat(root.resolve("applications")).isEmptyDirectory();
    assertThat(root.resolve("databases/ejbtimer/log")).hasContent("kept");
  }
}

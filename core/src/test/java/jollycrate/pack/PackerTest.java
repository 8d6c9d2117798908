package jollycrate.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.Collections;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The same input gives the same bytes, and nothing gets in that nobody wants delivered. */
class PackerTest {
  @TempDir Path folder;

  @BeforeEach
  void project() throws IOException {
    file("classes/shop/Desk.class");
    file("classes/ünï/日本.txt");
    file("web/index.html");
    file("web/WEB-INF/web.xml");
    file("libs/b.jar");
    file("libs/a.jar");
  }

  private Path file(String name) throws IOException {
    Path file = folder.resolve(name);
    Files.createDirectories(file.getParent());
    return Files.writeString(file, name);
  }

  private Packed pack(String target, String... leaveOut) {
    PackRequest request =
        new PackRequest(
            "shop",
            "1.0",
            List.of(folder.resolve("classes")),
            List.of(folder.resolve("web")),
            List.of(folder.resolve("libs/b.jar"), folder.resolve("libs/a.jar")),
            List.of(leaveOut));
    return Packer.pack(request, folder.resolve(target));
  }

  private static List<String> names(Path war) throws IOException {
    try (ZipFile zip = new ZipFile(war.toFile())) {
      return Collections.list(zip.entries()).stream().map(ZipEntry::getName).toList();
    }
  }

  @Test
  void theManifestComesFirstThenEveryFileInOrder() throws IOException {
    assertThat(names(pack("out/a.war").file()))
        .containsExactly(
            "META-INF/MANIFEST.MF",
            "WEB-INF/classes/shop/Desk.class",
            "WEB-INF/classes/ünï/日本.txt",
            "WEB-INF/lib/a.jar",
            "WEB-INF/lib/b.jar",
            "WEB-INF/web.xml",
            "index.html");
  }

  @Test
  void onAnotherDayTheBytesAreTheSame() throws IOException {
    Packed first = pack("a.war");
    try (Stream<Path> files = Files.walk(folder.resolve("web"))) {
      for (Path file : files.toList()) {
        Files.setLastModifiedTime(file, FileTime.fromMillis(1_000_000_000_000L));
      }
    }
    Packed second = pack("b.war");
    assertThat(second.digest()).isEqualTo(first.digest());
    assertThat(pack("a.war").changed()).isFalse();
    file("web/index2.html");
    assertThat(pack("a.war").changed()).isTrue();
  }

  @Test
  void leftoversStayOutsideAndAreNamed() throws IOException {
    file("web/.git/config");
    file("web/.svn/entries");
    file("web/page.html~");
    file("web/.page.html.swp");
    file("web/#page.html#");
    file("web/.DS_Store");
    file("classes/app.map");
    Files.createSymbolicLink(folder.resolve("web/link"), folder.resolve("libs"));
    Packed packed = pack("a.war", "**/*.map");
    assertThat(packed.entries()).isEqualTo(7);
    assertThat(packed.leftOut())
        .extracting(Packed.LeftOut::path)
        .containsExactlyInAnyOrder(
            ".git",
            ".svn",
            "page.html~",
            ".page.html.swp",
            "#page.html#",
            ".DS_Store",
            "link",
            "WEB-INF/classes/app.map");
  }

  @Test
  void theEarlierArtifactStaysWhenPackingFails() throws IOException {
    Packed packed = pack("a.war");
    try (Stream<Path> files = Files.walk(folder.resolve("web"))) {
      for (Path file : files.sorted(Collections.reverseOrder()).toList()) {
        Files.delete(file);
      }
    }
    assertThatThrownBy(() -> pack("a.war"))
        .isInstanceOf(PackException.class)
        .hasMessageContaining("there is no such folder")
        .hasMessageContaining("mend 'web' in [pack]");
    assertThat(names(packed.file())).hasSize(7);
    assertThat(folder.toFile().list()).doesNotContain(".a.war.part");
  }

  @Test
  void twoFilesOfOneNameAreTold() throws IOException {
    file("web/WEB-INF/classes/shop/Desk.class");
    assertThat(pack("a.war").leftOut())
        .singleElement()
        .satisfies(
            left -> {
              assertThat(left.path()).isEqualTo("WEB-INF/classes/shop/Desk.class");
              assertThat(left.reason()).contains("stands there already; it wins");
            });
  }
}

package jollycrate.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import jollycrate.file.Digests;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.Opcodes;

/** The same input gives the same bytes, and nothing gets in that nobody wants delivered. */
class PackerTest {
  @TempDir Path folder;

  @BeforeEach
  void project() throws IOException {
    file("classes/shop/Desk.class");
    file("classes/ünï/日本.txt");
    file("web/index.html");
    file("web/WEB-INF/web.xml");
    library("b", "b/B.txt", "b");
    library("a", "a/A.txt", "a");
  }

  private Path library(String name, String... entries) throws IOException {
    Path file = folder.resolve("libs/" + name + ".jar");
    Files.createDirectories(file.getParent());
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (int i = 0; i < entries.length; i += 2) {
        zip.putNextEntry(new ZipEntry(entries[i]));
        zip.write(entries[i + 1].getBytes(StandardCharsets.UTF_8));
      }
    }
    return file;
  }

  private Path file(String name) throws IOException {
    Path file = folder.resolve(name);
    Files.createDirectories(file.getParent());
    return Files.writeString(file, name);
  }

  private Packed pack(String target, String... leaveOut) {
    PackRequest.Choice choice =
        new PackRequest.Choice(List.of(), List.of(leaveOut), List.of(), false);
    return Packer.pack(request(Shape.WAR, Optional.empty(), choice), folder.resolve(target));
  }

  private PackRequest request(Shape shape, Optional<String> main, PackRequest.Choice choice) {
    return new PackRequest(
        "shop",
        "1.0",
        shape,
        List.of(folder.resolve("classes")),
        shape.isJar() ? List.of() : List.of(folder.resolve("web")),
        List.of(folder.resolve("libs/b.jar"), folder.resolve("libs/a.jar")),
        List.of(),
        main,
        choice,
        new TreeMap<>(),
        PackRequest.Pages.PLAIN,
        PackRequest.FIXED_TIME);
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
    assertThat(Digests.of(second.file())).isEqualTo(Digests.of(first.file()));
    assertThat(pack("a.war").changed()).isFalse();
    file("web/index2.html");
    assertThat(pack("a.war").changed()).isTrue();
  }

  /** Servers make the tag of a page from its size and time. */
  @Test
  void anotherContentOfTheSameLengthHasAnotherTime() throws IOException {
    Map<String, Set<Long>> times = new TreeMap<>();
    for (String hash : List.of("1a2b3c4d", "1a2b3c4e", "9f8e7d6c")) {
      Files.writeString(folder.resolve("web/index.html"), "<script src='app." + hash + ".js'>");
      try (ZipFile zip = new ZipFile(pack("a.war").file().toFile())) {
        for (ZipEntry entry : Collections.list(zip.entries())) {
          times.computeIfAbsent(entry.getName(), n -> new TreeSet<>()).add(entry.getTime());
        }
      }
    }
    assertThat(times.remove("index.html")).hasSize(3);
    assertThat(times.values()).allMatch(seen -> seen.size() == 1);
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
        .hasMessageContaining("fix 'web' in [pack]");
    assertThat(names(packed.file())).hasSize(7);
    assertThat(folder.toFile().list()).doesNotContain(".a.war.part");
  }

  @Test
  void twoFilesOfOneNameAreRefusedUnlessTheyAreTheSame() throws IOException {
    Path other = file("web/WEB-INF/classes/shop/Desk.class");
    assertThatThrownBy(() -> pack("a.war"))
        .hasMessageContaining("both become 'WEB-INF/classes/shop/Desk.class' and differ")
        .hasMessageContaining(other.toString());
    Files.writeString(other, "classes/shop/Desk.class");
    assertThat(pack("a.war").entries()).isEqualTo(7);
  }

  @Test
  void moreEntriesThanAPlainArchiveHolds() throws IOException {
    Path many = Files.createDirectories(folder.resolve("web/many"));
    for (int i = 0; i < 66_000; i++) {
      Files.createFile(many.resolve("f" + i));
    }
    assertThat(names(pack("a.war").file())).hasSize(66_007).contains("many/f65999");
  }

  @Test
  void mergedLibrariesAreReadTogetherAndWhatIsHiddenIsTold() throws IOException {
    Files.write(folder.resolve("classes/shop/Desk.class"), mainClass("shop/Desk"));
    library(
        "a",
        "META-INF/services/shop.Part",
        "a.Part\ncommon.Part\n",
        "META-INF/LICENSE",
        "licence of a",
        "META-INF/A.SF",
        "signed",
        "module-info.class",
        "x",
        "x/same.txt",
        "same",
        "x/other.txt",
        "of a");
    library(
        "b",
        "META-INF/services/shop.Part",
        "b.Part\ncommon.Part",
        "META-INF/LICENSE",
        "licence of b",
        "x/same.txt",
        "same",
        "x/other.txt",
        "of b");
    Packed packed =
        Packer.pack(
            request(Shape.MERGED_JAR, Optional.empty(), PackRequest.Choice.ALL),
            folder.resolve("shop.jar"));
    assertThat(packed.mainClass()).contains("shop.Desk");
    assertThat(names(packed.file()))
        .contains("META-INF/licenses/a/META-INF/LICENSE", "META-INF/licenses/b/META-INF/LICENSE")
        .contains("META-INF/", "x/")
        .doesNotContain("META-INF/A.SF", "module-info.class");
    try (ZipFile zip = new ZipFile(packed.file().toFile())) {
      assertThat(zip.getInputStream(zip.getEntry("META-INF/services/shop.Part")))
          .hasContent("b.Part\ncommon.Part\na.Part\n");
      assertThat(zip.getInputStream(zip.getEntry("x/other.txt"))).hasContent("of b");
    }
    assertThat(packed.remarks())
        .filteredOn(Packed.Remark::warning)
        .singleElement()
        .satisfies(
            remark -> {
              assertThat(remark.text()).isEqualTo("1 file differs: b.jar over a.jar");
              assertThat(remark.details()).containsExactly("x/other.txt");
            });
  }

  private static byte[] mainClass(String name) {
    ClassWriter writer = new ClassWriter(0);
    writer.visit(Opcodes.V17, Opcodes.ACC_PUBLIC, name, null, "java/lang/Object", null);
    int access = Opcodes.ACC_PUBLIC | Opcodes.ACC_STATIC;
    writer.visitMethod(access, "main", "([Ljava/lang/String;)V", null, null).visitEnd();
    writer.visitEnd();
    return writer.toByteArray();
  }

  @Test
  void theClassToStartIsFoundOrAskedFor() throws IOException {
    Files.write(folder.resolve("classes/shop/Desk.class"), mainClass("shop/Desk"));
    Files.write(folder.resolve("classes/shop/Bell.class"), mainClass("shop/Bell"));
    Path target = folder.resolve("shop.jar");
    assertThatThrownBy(
            () ->
                Packer.pack(
                    request(Shape.MERGED_JAR, Optional.empty(), PackRequest.Choice.ALL), target))
        .hasMessageContaining("2 classes can be started: shop.Bell, shop.Desk");
    assertThatThrownBy(
            () ->
                Packer.pack(
                    request(Shape.MERGED_JAR, Optional.of("shop.Sale"), PackRequest.Choice.ALL),
                    target))
        .hasMessageContaining("there is no such class")
        .hasMessageContaining("shop.Bell, shop.Desk");
    assertThat(target).doesNotExist();
  }

  @ParameterizedTest
  @CsvSource({
    "../out.txt, points outside the archive",
    "/etc/out.txt, points outside the archive",
    "a/../../out.txt, points outside the archive"
  })
  void aHostileLibraryIsRefused(String entry, String reason) throws IOException {
    Path library = library("a", entry, "x");
    assertThatThrownBy(() -> pack("a.war"))
        .hasMessageContaining(library.toString())
        .hasMessageContaining(reason);
  }

  @Test
  void aLibraryThatSaysOneThingAndHoldsAnotherIsRefused() throws IOException {
    Files.write(folder.resolve("classes/shop/Desk.class"), mainClass("shop/Desk"));
    Path library = library("a", "x/long.txt", "wheel ".repeat(500));
    byte[] bytes = Files.readAllBytes(library);
    bytes[60] ^= 0x55;
    Files.write(library, bytes);
    assertThatThrownBy(
            () ->
                Packer.pack(
                    request(Shape.MERGED_JAR, Optional.empty(), PackRequest.Choice.ALL),
                    folder.resolve("shop.jar")))
        .isInstanceOf(PackException.class)
        .hasMessageContaining("a.jar!/x/long.txt");
  }

  @Test
  void namesThatDifferInCaseOnlyAreRefused() throws IOException {
    file("web/Index.html");
    assertThatThrownBy(() -> pack("a.war")).hasMessageContaining("differ in case only");
  }

  @Test
  void whatStandsInAProgramsFolderStaysAndOnlyStaleLibrariesGo() throws IOException {
    Files.write(folder.resolve("classes/shop/Desk.class"), mainClass("shop/Desk"));
    PackRequest both = request(Shape.JAR_AND_LIBS, Optional.empty(), PackRequest.Choice.ALL);
    Path target = folder.resolve("out/shop-1.0.zip");
    Packer.pack(both, target);
    Path program = folder.resolve("out/shop-1.0");
    Path data = Files.writeString(program.resolve("lib/bell.db"), "rings");
    Path own = Files.writeString(program.resolve("shop.properties"), "port = 1");
    PackRequest one =
        new PackRequest(
            "shop",
            "1.0",
            Shape.JAR_AND_LIBS,
            both.classes(),
            List.of(),
            both.libs().subList(1, 2),
            List.of(),
            Optional.empty(),
            PackRequest.Choice.ALL,
            new TreeMap<>(),
            PackRequest.Pages.PLAIN,
            PackRequest.FIXED_TIME);
    Packer.pack(one, target);
    assertThat(program.resolve("lib").toFile().list())
        .containsExactlyInAnyOrder("a.jar", "bell.db");
    assertThat(data).hasContent("rings");
    assertThat(own).exists();
    assertThat(program.resolve("shop")).isExecutable();
    assertThat(names(target)).contains("shop-1.0/lib/a.jar").doesNotContain("shop-1.0/lib/b.jar");
    assertThat(folder.resolve("out").toFile().list())
        .containsExactlyInAnyOrder("shop-1.0", "shop-1.0.zip");
  }

  @Test
  void theOutputIsNoInput() {
    assertThatThrownBy(() -> pack("web/a.war")).hasMessageContaining("which goes into it");
    assertThatThrownBy(() -> pack("libs/a.jar")).hasMessageContaining("one of the libraries");
  }
}

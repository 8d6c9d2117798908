package jollycrate.site;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.apache.commons.compress.archivers.ArchiveEntry;
import org.apache.commons.compress.archivers.ArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipArchiveOutputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** An archive becomes a folder as it was meant, or nothing at all. */
class UnpackingTest {
  private static final byte[] TEXT = "ring".getBytes();

  @TempDir Path folder;

  private Path archive(String name, ArchiveEntry... entries) throws IOException {
    Path file = folder.resolve(name);
    try (OutputStream out = Files.newOutputStream(file)) {
      if (name.endsWith(".zip")) {
        write(new ZipArchiveOutputStream(out), (ZipArchiveEntry[]) entries);
      } else {
        write(
            new TarArchiveOutputStream(new GzipCompressorOutputStream(out)),
            (TarArchiveEntry[]) entries);
      }
    }
    return file;
  }

  @SafeVarargs
  private static <E extends ArchiveEntry> void write(ArchiveOutputStream<E> out, E... entries)
      throws IOException {
    try (out) {
      for (E entry : entries) {
        out.putArchiveEntry(entry);
        if (entry.getSize() > 0) {
          out.write(TEXT);
        }
        out.closeArchiveEntry();
      }
    }
  }

  private static ZipArchiveEntry zipped(String name, int mode) {
    ZipArchiveEntry entry = new ZipArchiveEntry(name);
    entry.setUnixMode(mode);
    entry.setSize(TEXT.length);
    return entry;
  }

  private static TarArchiveEntry tarred(String name, int mode) {
    TarArchiveEntry entry = new TarArchiveEntry(name, true);
    entry.setMode(mode);
    entry.setSize(TEXT.length);
    return entry;
  }

  private static TarArchiveEntry linked(String name, byte kind, String target) {
    TarArchiveEntry entry = new TarArchiveEntry(name, kind);
    entry.setLinkName(target);
    return entry;
  }

  @Test
  void theOneFolderInsideBecomesTheFolderAndProgramsStayPrograms() throws IOException {
    ArchiveEntry[] zip = {zipped("server-1/bin/run.sh", 0100755), zipped("server-1/a", 0100644)};
    ArchiveEntry[] tar = {tarred("server-1/bin/run.sh", 0755), tarred("server-1/a", 0644)};
    for (Path archive :
        List.of(
            archive("z.zip", List.of(zip).toArray(ZipArchiveEntry[]::new)),
            archive("t.tar.gz", List.of(tar).toArray(TarArchiveEntry[]::new)))) {
      Path into = folder.resolve("installations").resolve(Unpacking.baseName(archive));
      Unpacking.unpack(archive, into);
      assertThat(into.resolve("a")).hasContent("ring");
      assertThat(into.resolve("bin/run.sh")).isExecutable();
      assertThat(Files.isExecutable(into.resolve("a"))).isFalse();
    }
    assertThat(folder.resolve("installations").toFile().list()).containsExactlyInAnyOrder("z", "t");
  }

  @ParameterizedTest
  @ValueSource(strings = {"../out", "server/../../out", "/out"})
  void nothingLandsOutside(String name) throws IOException {
    refused(archive("z.zip", new ZipArchiveEntry[] {zipped(name, 0100644)}), "points outside");
    TarArchiveEntry[] tar = {tarred(name, 0644)};
    refused(archive("t.tgz", tar), "points outside");
    assertThat(folder.resolve("out")).doesNotExist();
  }

  @Test
  void noLinkLeadsOut() throws IOException {
    String reason = "is a link or a device";
    refused(archive("z.zip", new ZipArchiveEntry[] {zipped("a", 0120777)}), reason);
    TarArchiveEntry hard = linked("a", TarConstants.LF_LINK, "/etc/passwd");
    refused(archive("h.tgz", new TarArchiveEntry[] {hard}), reason);
    for (String target :
        List.of("/etc/passwd", "../../../../../etc/passwd", "absent", "b/../..", "b/x/../../..")) {
      TarArchiveEntry[] tar = {
        tarred("c", 0644),
        linked("a", TarConstants.LF_SYMLINK, target),
        linked("b", TarConstants.LF_SYMLINK, ".")
      };
      refused(archive("t.tgz", tar), "leads to nothing in the archive");
    }
    TarArchiveEntry device = new TarArchiveEntry("dev", TarConstants.LF_CHR);
    refused(archive("d.tgz", new TarArchiveEntry[] {device}), reason);
  }

  @Test
  void noLinkIsMadeThroughAnother() throws IOException {
    TarArchiveEntry[] tar = {
      tarred("d/c", 0644),
      linked("b", TarConstants.LF_SYMLINK, "d"),
      linked("b/x", TarConstants.LF_SYMLINK, "c")
    };
    refused(archive("t.tgz", tar), "leads to nothing in the archive");
  }

  @Test
  void linksInsideStay() throws IOException {
    TarArchiveEntry[] tar = {
      linked("jdk/man", TarConstants.LF_SYMLINK, "pages/now"),
      linked("jdk/pages/now", TarConstants.LF_SYMLINK, "../legal/a"),
      linked("jdk/legal/b/LICENSE", TarConstants.LF_SYMLINK, "../a/LICENSE"),
      tarred("jdk/legal/a/LICENSE", 0644)
    };
    Path into = folder.resolve("jdk");
    Unpacking.unpack(archive("jdk.tgz", tar), into);
    assertThat(into.resolve("legal/b/LICENSE")).isSymbolicLink().hasContent("ring");
    assertThat(into.resolve("man")).isSymbolicLink();
    assertThat(into.resolve("man/LICENSE")).hasContent("ring");
  }

  @Test
  void whatIsNoArchiveLeavesNothing() throws IOException {
    refused(Files.writeString(folder.resolve("x.zip"), "text"), "");
    refused(Files.writeString(folder.resolve("x.tar.gz"), "text"), "");
    refused(archive("empty.tgz", new TarArchiveEntry[0]), "it is empty");
  }

  private void refused(Path archive, String reason) {
    Path into = folder.resolve("installations/" + Unpacking.baseName(archive));
    assertThatThrownBy(() -> Unpacking.unpack(archive, into))
        .isInstanceOf(IOException.class)
        .hasMessageContaining(reason);
    assertThat(folder.resolve("installations").toFile().list()).isEmpty();
  }
}

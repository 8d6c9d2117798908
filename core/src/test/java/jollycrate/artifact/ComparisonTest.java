package jollycrate.artifact;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Archives are read as they are and compared by what they hold. */
class ComparisonTest {
  @TempDir Path folder;

  private Path zip(String name, Map<String, String> entries) throws IOException {
    Path file = folder.resolve(name);
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (Map.Entry<String, String> entry : new TreeMap<>(entries).entrySet()) {
        zip.putNextEntry(new ZipEntry(entry.getKey()));
        zip.write(entry.getValue().getBytes());
      }
    }
    return file;
  }

  @Test
  void aLibraryInAnotherVersionIsOneChange() throws IOException {
    Path one =
        zip(
            "one.war",
            Map.of("WEB-INF/lib/json-1.9.jar", "old", "a.txt", "a", "b.txt", "b", "c/", ""));
    Path other =
        zip("other.war", Map.of("WEB-INF/lib/json-1.10.jar", "newer", "a.txt", "A", "d.txt", "b"));
    try (ZipArchive before = ZipArchive.open(one);
        ZipArchive after = ZipArchive.open(other)) {
      Comparison comparison = Comparison.of(before.members(), after.members());
      assertThat(comparison.changes())
          .containsExactly(
              new Comparison.Change(Comparison.Kind.ADDED, "d.txt", 0, 1),
              new Comparison.Change(Comparison.Kind.REMOVED, "b.txt", 1, 0),
              new Comparison.Change(Comparison.Kind.CHANGED, "a.txt", 1, 1),
              new Comparison.Change(Comparison.Kind.VERSION, "WEB-INF/lib/json 1.9 -> 1.10", 3, 5));
      assertThat(Comparison.of(before.members(), before.members()).isEmpty()).isTrue();
      assertThat(Comparison.of(before.members(), before.members()).same()).isEqualTo(3);
    }
  }

  @Test
  void anArchiveBehindOtherBytesIsReadWithShiftedOffsets() throws IOException {
    Path plain = zip("plain.jar", Map.of("a.txt", "bell", "b.txt", "brake"));
    ByteArrayOutputStream shifted = new ByteArrayOutputStream();
    shifted.write("#!/bin/sh\n".getBytes());
    shifted.write(Files.readAllBytes(plain));
    Path file = Files.write(folder.resolve("run"), shifted.toByteArray());
    try (ZipArchive archive = ZipArchive.open(file)) {
      assertThat(archive.leading()).isEqualTo(10);
      assertThat(archive.read(archive.member("b.txt").orElseThrow(), 100))
          .asString()
          .isEqualTo("brake");
    }
  }

  @Test
  void whatTheDirectorySaysIsHeldAgainstTheContent() throws IOException {
    Path file = zip("long.jar", Map.of("a.txt", "wheel ".repeat(1000)));
    byte[] bytes = Files.readAllBytes(file);
    bytes[50] ^= 1;
    Files.write(file, bytes);
    try (ZipArchive archive = ZipArchive.open(file)) {
      ZipMember member = archive.member("a.txt").orElseThrow();
      assertThatThrownBy(() -> archive.read(member, 100_000))
          .isInstanceOf(ZipException.class)
          .hasMessage("entry 'a.txt' is damaged");
      assertThatThrownBy(() -> archive.open(member).readAllBytes()).isInstanceOf(IOException.class);
      assertThatThrownBy(() -> archive.read(member, 10)).hasMessageContaining("is larger than 10");
    }
  }

  @Test
  void aDirectoryThatPointsOutsideTheFileIsRefused() throws IOException {
    Path file = zip("a.jar", Map.of("a.txt", "bell"));
    byte[] bytes = Files.readAllBytes(file);
    int offset = bytes.length - 6;
    bytes[offset] = (byte) 0xff;
    bytes[offset + 1] = (byte) 0xff;
    Files.write(file, bytes);
    assertThatThrownBy(() -> ZipArchive.open(file))
        .isInstanceOf(ZipException.class)
        .hasMessageContaining("damaged");
    Files.write(file, new byte[0]);
    assertThatThrownBy(() -> ZipArchive.open(file)).hasMessage("it is empty");
    Files.write(file, new byte[100]);
    assertThatThrownBy(() -> ZipArchive.open(file)).hasMessageContaining("no archive directory");
  }
}

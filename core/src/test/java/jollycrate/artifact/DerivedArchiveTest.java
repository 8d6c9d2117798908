package jollycrate.artifact;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class DerivedArchiveTest {
  @TempDir Path folder;

  private static byte[] archive(int files) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
      entry(zip, "WEB-INF/web.xml", "<web-app/>");
      entry(zip, "WEB-INF/own.xml", "old");
      for (int i = 0; i < files; i++) {
        entry(zip, "page-" + i, "page " + i);
      }
    }
    return bytes.toByteArray();
  }

  private static void entry(ZipOutputStream zip, String name, String text) throws IOException {
    zip.putNextEntry(new ZipEntry(name));
    zip.write(text.getBytes(StandardCharsets.UTF_8));
    zip.closeEntry();
  }

  private Path derived(byte[] bytes) throws IOException {
    Path file = Files.write(folder.resolve("bell.war"), bytes);
    Map<String, byte[]> entries =
        Map.of("WEB-INF/own.xml", "new".getBytes(), "WEB-INF/lib/ü.xml", "added".getBytes());
    DerivedArchive derived = DerivedArchive.of(file, entries);
    try (InputStream in = derived.open()) {
      byte[] made = in.readAllBytes();
      assertThat(derived.size()).isEqualTo(made.length);
      return Files.write(folder.resolve("derived.war"), made);
    }
  }

  private static String text(ZipFile zip, String name) throws IOException {
    return new String(
        zip.getInputStream(zip.getEntry(name)).readAllBytes(), StandardCharsets.UTF_8);
  }

  @Test
  void entriesArePutInOrTakeThePlaceOfOthersAndTheRestStaysWhereItStood() throws IOException {
    byte[] bytes = archive(3);
    Path file = derived(bytes);
    try (ZipFile zip = new ZipFile(file.toFile())) {
      assertThat(zip.stream().map(ZipEntry::getName))
          .containsExactlyInAnyOrder(
              "WEB-INF/web.xml",
              "WEB-INF/own.xml",
              "WEB-INF/lib/ü.xml",
              "page-0",
              "page-1",
              "page-2");
      assertThat(zip.stream().findFirst().orElseThrow().getName()).isEqualTo("WEB-INF/web.xml");
      assertThat(text(zip, "WEB-INF/own.xml")).isEqualTo("new");
      assertThat(text(zip, "WEB-INF/lib/ü.xml")).isEqualTo("added");
      assertThat(text(zip, "page-2")).isEqualTo("page 2");
    }
    int directory = Arrays.mismatch(bytes, Files.readAllBytes(file)) - "PK".length();
    assertThat(new String(bytes, directory, 4, StandardCharsets.ISO_8859_1)).isEqualTo("PK\1\2");
    assertThat(ArtifactReader.read(file).faults()).isEmpty();
  }

  @Test
  void aScriptBeforeTheArchiveStaysBeforeIt() throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    bytes.write("#!/bin/sh\nexit\n".getBytes());
    bytes.write(archive(1));
    try (ZipFile zip = new ZipFile(derived(bytes.toByteArray()).toFile())) {
      assertThat(text(zip, "WEB-INF/own.xml")).isEqualTo("new");
      assertThat(text(zip, "page-0")).isEqualTo("page 0");
    }
  }

  @Test
  void moreEntriesThanAPlainDirectoryCountsAreCounted() throws IOException {
    try (ZipFile zip = new ZipFile(derived(archive(70_000)).toFile())) {
      assertThat(zip.size()).isEqualTo(70_003);
      assertThat(text(zip, "WEB-INF/lib/ü.xml")).isEqualTo("added");
      assertThat(text(zip, "page-69999")).isEqualTo("page 69999");
    }
  }

  @Test
  void whatIsNoArchiveIsRefused() {
    assertThatThrownBy(() -> derived("no archive".getBytes())).isInstanceOf(ZipException.class);
  }
}

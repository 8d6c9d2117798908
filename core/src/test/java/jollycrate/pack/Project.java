package jollycrate.pack;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;

/** A small project on disk, packed in any shape. */
final class Project {
  private final Path folder;
  private final List<Path> libs = new ArrayList<>();
  private final List<Path> alone = new ArrayList<>();
  private PackRequest.Choice choice = PackRequest.Choice.ALL;
  private Optional<String> fallback = Optional.empty();
  private PackRequest.Pages pages = PackRequest.Pages.PLAIN;
  private Optional<String> main = Optional.empty();
  private final SortedMap<String, String> standaloneSettings = new TreeMap<>();

  Project(Path folder) throws IOException {
    this.folder = folder;
    Files.createDirectories(folder.resolve("classes"));
    Files.createDirectories(folder.resolve("web"));
  }

  Project file(String name, byte[] content) throws IOException {
    Path file = folder.resolve(name);
    Files.createDirectories(file.getParent());
    Files.write(file, content);
    return this;
  }

  Project file(String name, String content) throws IOException {
    return file(name, content.getBytes(StandardCharsets.UTF_8));
  }

  /** Adds a library that holds empty entries of these names. */
  Project library(String name, String... entries) throws IOException {
    libs.add(jar(name, entries));
    return this;
  }

  Project alone(String name, String... entries) throws IOException {
    alone.add(jar(name, entries));
    return this;
  }

  private Path jar(String name, String... entries) throws IOException {
    Path file = folder.resolve("libs").resolve(name);
    Files.createDirectories(file.getParent());
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (String entry : entries) {
        zip.putNextEntry(new ZipEntry(entry));
      }
    }
    return file;
  }

  Project keeping(String... patterns) {
    choice = new PackRequest.Choice(List.of(), List.of(), List.of(patterns), false);
    return this;
  }

  Project leavingOut(String... patterns) {
    choice = new PackRequest.Choice(List.of(), List.of(patterns), List.of(), false);
    return this;
  }

  Project starting(String mainClass) {
    main = Optional.of(mainClass);
    return this;
  }

  /** Before the path is told. */
  Project fallback(String page) {
    fallback = Optional.of(page);
    return this;
  }

  Project at(String path, Map<String, Object> settings, Optional<String> settingsFile) {
    pages = new PackRequest.Pages(path, settings, settingsFile, fallback, false);
    return this;
  }

  Packed pack(Shape shape) {
    PackRequest request =
        new PackRequest(
            "shop",
            "1.0",
            shape,
            shape == Shape.WEB ? List.of() : List.of(folder.resolve("classes")),
            shape.isJar() ? List.of() : List.of(folder.resolve("web")),
            libs,
            alone,
            main,
            choice,
            standaloneSettings,
            pages,
            PackRequest.FIXED_TIME);
    return Packer.pack(request, folder.resolve("out/shop." + shape.ending()));
  }

  /** Names in an archive. */
  static List<String> names(Packed packed) throws IOException {
    try (ZipFile zip = new ZipFile(packed.file().toFile())) {
      return zip.stream().map(ZipEntry::getName).toList();
    }
  }

  /** Content of an entry. */
  static byte[] content(Packed packed, String name) throws IOException {
    try (ZipFile zip = new ZipFile(packed.file().toFile());
        InputStream in = zip.getInputStream(zip.getEntry(name))) {
      return in.readAllBytes();
    }
  }

  static String text(Packed packed, String name) throws IOException {
    return new String(content(packed, name), StandardCharsets.UTF_8);
  }
}

package jollycrate.pack;

import java.io.ByteArrayInputStream;
import java.io.Closeable;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.jar.Manifest;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;
import jollycrate.file.IoReason;

/** A library of the project, open and looked through. */
final class Library implements Closeable {
  private static final long INFLATION_FLOOR = 1L << 30;
  private static final int INFLATION_FACTOR = 100;
  private static final int MOST_TEXT = 1 << 20;
  private static final Pattern VERSIONED =
      Pattern.compile("(.+?)-(\\d[\\w.+-]*)\\.jar", Pattern.UNICODE_CHARACTER_CLASS);
  private static final String COORDINATES = "META-INF/maven/";

  private final Path file;
  private final ZipArchive archive;
  private final long size;

  /**
   * What tells two versions of one library apart.
   *
   * @param id group and artifact where it tells them, else its file's name without the version
   */
  record Coordinates(String id, String version) {}

  private Library(Path file, ZipArchive archive) throws IOException {
    this.file = file;
    this.archive = archive;
    this.size = Files.size(file);
    long inflated = 0;
    for (ZipMember member : archive.members()) {
      if (member.escapes()) {
        throw refused(file, "entry '" + member.name() + "' points outside the archive");
      }
      inflated += member.size();
      if (inflated < 0 || inflated > Math.max(INFLATION_FLOOR, size * INFLATION_FACTOR)) {
        throw refused(file, "it inflates to an unreasonable size");
      }
    }
  }

  /** Opens one; a message names it when it is no archive or a hostile one. */
  static Library open(Path file) {
    ZipArchive archive = null;
    try {
      archive = ZipArchive.open(file);
      return new Library(file, archive);
    } catch (NoSuchFileException e) {
      throw new PackException(
          "Cannot pack library '" + file + "': there is no such file. Build first, or fix 'libs'");
    } catch (IOException e) {
      String reason = Files.isDirectory(file) ? "it is a folder" : IoReason.of(e);
      throw refused(file, reason);
    } catch (PackException e) {
      closeQuietly(archive);
      throw e;
    }
  }

  private static void closeQuietly(ZipArchive archive) {
    try {
      archive.close();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static PackException refused(Path file, String reason) {
    return new PackException(
        "Cannot pack library '" + file + "': " + reason + ". Fetch it again, or take it out");
  }

  Path file() {
    return file;
  }

  String fileName() {
    return file.getFileName().toString();
  }

  /** Its file's name without the ending. */
  String base() {
    return fileName().replaceFirst("\\.jar$", "");
  }

  long size() {
    return size;
  }

  ZipArchive archive() {
    return archive;
  }

  /** Its classes, those for single Java versions and module descriptors not counted. */
  Stream<ZipMember> classes() {
    return archive.members().stream()
        .filter(member -> member.name().endsWith(".class"))
        .filter(member -> !member.name().startsWith("META-INF/"))
        .filter(member -> !member.name().equals("module-info.class"));
  }

  Coordinates coordinates() {
    List<ZipMember> told =
        archive.members().stream()
            .filter(member -> member.name().startsWith(COORDINATES))
            .filter(member -> member.simpleName().equals("pom.properties"))
            .toList();
    if (told.size() == 1) {
      Properties properties = new Properties();
      try {
        properties.load(new ByteArrayInputStream(archive.read(told.get(0), MOST_TEXT)));
      } catch (IOException | IllegalArgumentException e) {
        throw refused(file, e.getMessage());
      }
      String group = properties.getProperty("groupId", "");
      String id = properties.getProperty("artifactId", "");
      String version = properties.getProperty("version", "");
      if (!id.isEmpty() && !version.isEmpty()) {
        return new Coordinates(group + ":" + id, version);
      }
    }
    Matcher named = VERSIONED.matcher(fileName());
    return named.matches()
        ? new Coordinates(named.group(1), named.group(2))
        : new Coordinates(base(), "");
  }

  /** Whether its folders for single Java versions count (JAR specification, multi-release). */
  boolean multiRelease() throws IOException {
    return manifest()
        .map(found -> found.getMainAttributes().getValue("Multi-Release"))
        .filter(value -> value.strip().equalsIgnoreCase("true"))
        .isPresent();
  }

  private Optional<Manifest> manifest() throws IOException {
    Optional<ZipMember> member = archive.member("META-INF/MANIFEST.MF");
    if (member.isEmpty()) {
      return Optional.empty();
    }
    try {
      return Optional.of(
          new Manifest(new ByteArrayInputStream(archive.read(member.get(), MOST_TEXT))));
    } catch (IOException e) {
      throw refused(file, "its manifest is damaged: " + e.getMessage());
    }
  }

  @Override
  public void close() throws IOException {
    archive.close();
  }
}

package jollycrate.pack;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import jollycrate.artifact.ClassPathPlace;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;

/** The classes of ours that go into artifacts, as they stand on our own class path. */
final class InsideParts {
  private static final String MARK = "jollycrate/standalone/Standalone.class";
  private static final int MOST_BYTES = 1 << 20;

  private InsideParts() {}

  /** Class files of a package, by path, without those of packages below it. */
  static Map<String, byte[]> of(String packagePath) throws IOException {
    Map<String, byte[]> found = new TreeMap<>();
    Path place = ClassPathPlace.of(MARK);
    if (Files.isDirectory(place)) {
      try (Stream<Path> files = Files.list(place.resolve(packagePath))) {
        for (Path file : files.filter(Files::isRegularFile).toList()) {
          found.put(packagePath + "/" + file.getFileName(), Files.readAllBytes(file));
        }
      }
      return found;
    }
    try (ZipArchive archive = ZipArchive.open(place)) {
      for (ZipMember member : archive.members()) {
        String folder = packagePath + "/";
        if (member.name().equals(folder + member.simpleName()) && !member.isFolder()) {
          found.put(member.name(), archive.read(member, MOST_BYTES));
        }
      }
    }
    return found;
  }
}

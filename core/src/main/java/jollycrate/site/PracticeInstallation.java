package jollycrate.site;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Setting;

/** The practice server's installation: unpacked once from an archive that ships with us. */
final class PracticeInstallation {
  /** Its line for javax.servlet; any other is for jakarta.servlet. */
  private static final String JAVAX = "tomcat-9.";

  private PracticeInstallation() {}

  /**
   * The installation; unpacked on first use, built beside and renamed.
   *
   * @param javax whether it is that for javax.servlet
   */
  static Path in(Setting setting, boolean javax) {
    Path archive = archive(setting, javax);
    Path folder = setting.data().resolve(Unpacking.baseName(archive));
    if (!Files.isDirectory(folder)) {
      try {
        Unpacking.unpack(archive, folder);
      } catch (IOException e) {
        throw new NotDescribedException(
            "Cannot unpack '"
                + archive
                + "' to '"
                + folder
                + "': "
                + e
                + ". Set JOLLY_DATA to a folder you may write in");
      }
    }
    return folder;
  }

  /** The archive that it is in. */
  static Path archive(Setting setting, boolean javax) {
    List<Path> found =
        setting.archives().map(PracticeInstallation::archivesIn).orElse(List.of()).stream()
            .filter(file -> file.getFileName().toString().startsWith(JAVAX) == javax)
            .toList();
    if (found.isEmpty()) {
      throw new NotDescribedException(
          "Cannot find the practice server's archive: it ships in the folder 'servers' of Jolly"
              + " Crate. Install Jolly Crate again");
    }
    return found.get(found.size() - 1);
  }

  private static List<Path> archivesIn(Path folder) {
    try (Stream<Path> files = Files.list(folder)) {
      return files.sorted().toList();
    } catch (IOException e) {
      return List.of();
    }
  }
}

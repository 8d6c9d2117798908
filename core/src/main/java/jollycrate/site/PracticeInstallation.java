package jollycrate.site;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Collections;
import java.util.List;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Setting;
import jollycrate.file.Trees;

/** The practice server's installation: unpacked once from the archive that ships with us. */
final class PracticeInstallation {
  private static final String EXTENSION = ".zip";

  private PracticeInstallation() {}

  /** The installation; unpacked on first use, built beside and renamed. */
  static Path in(Setting setting) {
    Path archive = archive(setting);
    String name = archive.getFileName().toString();
    Path folder = setting.data().resolve(name.substring(0, name.length() - EXTENSION.length()));
    if (!Files.isDirectory(folder)) {
      try {
        unpack(archive, folder);
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

  private static Path archive(Setting setting) {
    List<Path> found = setting.archives().map(PracticeInstallation::archivesIn).orElse(List.of());
    if (found.isEmpty()) {
      throw new NotDescribedException(
          "Cannot find the practice server's archive: it ships in the folder 'servers' of Jolly"
              + " Crate. Install Jolly Crate again");
    }
    return found.get(found.size() - 1);
  }

  private static List<Path> archivesIn(Path folder) {
    try (Stream<Path> files = Files.list(folder)) {
      return files.filter(file -> file.toString().endsWith(EXTENSION)).sorted().toList();
    } catch (IOException e) {
      return List.of();
    }
  }

  private static void unpack(Path archive, Path folder) throws IOException {
    Files.createDirectories(folder.getParent());
    Path beside = Files.createTempDirectory(folder.getParent(), ".unpacking");
    try (ZipFile zip = new ZipFile(archive.toFile())) {
      for (ZipEntry entry : Collections.list(zip.entries())) {
        unpack(zip, entry, beside);
      }
    }
    Path top;
    try (Stream<Path> children = Files.list(beside)) {
      top = children.findFirst().orElseThrow(() -> new IOException("it is empty"));
    }
    try {
      Files.move(top, folder, StandardCopyOption.ATOMIC_MOVE);
    } catch (IOException e) {
      if (!Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) {
        throw e;
      }
    }
    Trees.delete(beside);
  }

  private static void unpack(ZipFile zip, ZipEntry entry, Path folder) throws IOException {
    Path target = folder.resolve(entry.getName()).normalize();
    if (!target.startsWith(folder) || target.equals(folder)) {
      throw new IOException("entry '" + entry.getName() + "' points outside the archive");
    }
    if (entry.isDirectory()) {
      Files.createDirectories(target);
      return;
    }
    Files.createDirectories(target.getParent());
    try (InputStream in = zip.getInputStream(entry)) {
      Files.copy(in, target);
    }
  }
}

package jollycrate.standalone;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.net.URL;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/** Libraries of the archive in a folder of this process alone, gone when it ends. */
final class Unpacked {
  private final Path folder;

  Unpacked() throws IOException {
    this.folder = Files.createTempDirectory("alone");
  }

  Path folder() {
    return folder;
  }

  /** Unpacks what stands below a prefix: a class path of its libraries and its classes folder. */
  List<URL> classPath(File archive, String... prefixes) throws IOException {
    List<URL> path = new ArrayList<>();
    try (ZipFile zip = new ZipFile(archive)) {
      for (ZipEntry entry : Collections.list(zip.entries())) {
        for (String prefix : prefixes) {
          if (entry.getName().startsWith(prefix) && !entry.isDirectory()) {
            Path file = copy(zip, entry);
            if (entry.getName().endsWith(".jar")) {
              path.add(file.toUri().toURL());
            }
          }
        }
      }
    }
    for (String prefix : prefixes) {
      Path classes = folder.resolve(prefix.endsWith("classes/") ? prefix : prefix + "classes");
      if (Files.isDirectory(classes)) {
        path.add(0, classes.toUri().toURL());
      }
    }
    return path;
  }

  private Path copy(ZipFile zip, ZipEntry entry) throws IOException {
    Path file = folder.resolve(entry.getName()).normalize();
    if (!file.startsWith(folder)) {
      throw new IOException("entry '" + entry.getName() + "' points outside the archive");
    }
    Files.createDirectories(file.getParent());
    try (InputStream in = zip.getInputStream(entry)) {
      Files.copy(in, file);
    }
    return file;
  }

  void delete() {
    try {
      Files.walkFileTree(
          folder,
          new SimpleFileVisitor<Path>() {
            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes facts)
                throws IOException {
              Files.deleteIfExists(file);
              return FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult postVisitDirectory(Path gone, IOException e) throws IOException {
              Files.deleteIfExists(gone);
              return FileVisitResult.CONTINUE;
            }
          });
    } catch (IOException e) {
      System.err.println("Cannot remove '" + folder + "': " + e.getMessage());
    }
  }
}

package jollycrate.tomcat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import jollycrate.host.HostFiles;

/** An archive of an installation. */
record InstalledJar(HostFiles files, Path file) {
  private static final int MOST_BYTES = 16 << 20;

  /** What one of its entries holds; empty when there is none, or the archive is not whole. */
  Optional<byte[]> entry(String name) {
    byte[] bytes = files.read(file, 0, MOST_BYTES);
    try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(bytes))) {
      for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry()) {
        if (entry.getName().equals(name)) {
          return Optional.of(zip.readNBytes(MOST_BYTES));
        }
      }
      return Optional.empty();
    } catch (IOException notWhole) {
      return Optional.empty();
    }
  }
}

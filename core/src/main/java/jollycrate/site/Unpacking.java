package jollycrate.site;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Enumeration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import jollycrate.file.Trees;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;

/**
 * Unpacks a server's archive. It is untrusted: nothing lands outside the folder, no link is made,
 * and what it holds is bounded.
 */
final class Unpacking {
  private static final int MOST_ENTRIES = 200_000;
  private static final long MOST_BYTES = 8L << 30;
  private static final int ANY_EXECUTE = 0111;

  private final Path into;
  private final Map<Path, String> links = new LinkedHashMap<>();
  private int entries;
  private long bytesLeft = MOST_BYTES;

  private Unpacking(Path into) {
    this.into = into;
  }

  /** Whether a file is named like an archive that can be unpacked. */
  static boolean isArchive(Path file) {
    return Stream.of(".zip", ".tar.gz", ".tgz", ".tar")
        .anyMatch(ending -> file.getFileName().toString().endsWith(ending));
  }

  /** The name of an archive without its ending. */
  static String baseName(Path archive) {
    return archive.getFileName().toString().replaceFirst("\\.(zip|tar\\.gz|tgz|tar)$", "");
  }

  /**
   * Unpacks an archive into a folder that is not there yet: beside it, then renamed. A single
   * folder that holds everything in the archive becomes that folder. Where somebody else did the
   * same meanwhile, what he made is kept.
   *
   * @throws IOException when it is no archive or a hostile one; nothing is left behind
   */
  static void unpack(Path archive, Path folder) throws IOException {
    Files.createDirectories(folder.getParent());
    Path beside = Files.createTempDirectory(folder.getParent(), ".unpacking");
    try {
      Unpacking unpacking = new Unpacking(beside);
      if (archive.toString().endsWith(".zip")) {
        unpacking.zip(archive);
      } else {
        unpacking.tar(archive);
      }
      move(top(beside), folder);
    } finally {
      Trees.delete(beside);
    }
  }

  private static Path top(Path folder) throws IOException {
    try (Stream<Path> children = Files.list(folder)) {
      List<Path> found = children.toList();
      if (found.isEmpty()) {
        throw new IOException("it is empty");
      }
      return found.size() == 1 && Files.isDirectory(found.get(0)) ? found.get(0) : folder;
    }
  }

  private static void move(Path top, Path folder) throws IOException {
    try {
      Files.move(top, folder, StandardCopyOption.ATOMIC_MOVE);
    } catch (IOException e) {
      if (!Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) {
        throw e;
      }
    }
  }

  private void zip(Path archive) throws IOException {
    try (ZipFile zip = ZipFile.builder().setPath(archive).get()) {
      Enumeration<ZipArchiveEntry> all = zip.getEntries();
      while (all.hasMoreElements()) {
        ZipArchiveEntry entry = all.nextElement();
        mustBePlain(entry.getName(), entry.isUnixSymlink());
        try (InputStream in = entry.isDirectory() ? null : zip.getInputStream(entry)) {
          put(entry.getName(), entry.isDirectory(), entry.getUnixMode(), in);
        }
      }
    }
  }

  private void tar(Path archive) throws IOException {
    try (InputStream file = new BufferedInputStream(Files.newInputStream(archive));
        InputStream inflated =
            archive.toString().endsWith(".tar")
                ? file
                : GzipCompressorInputStream.builder()
                    .setInputStream(file)
                    .setDecompressConcatenated(true)
                    .get();
        TarArchiveInputStream tar = new TarArchiveInputStream(inflated)) {
      for (TarArchiveEntry entry = tar.getNextEntry(); entry != null; entry = tar.getNextEntry()) {
        boolean device = entry.isCharacterDevice() || entry.isBlockDevice() || entry.isFIFO();
        mustBePlain(entry.getName(), device || entry.isLink());
        if (entry.isSymbolicLink()) {
          links.put(target(entry.getName(), false), entry.getLinkName());
        } else {
          put(entry.getName(), entry.isDirectory(), entry.getMode(), tar);
        }
      }
    }
    makeLinks();
  }

  /**
   * Made when everything else stands: nothing is written through one. One may lead to another, so
   * where they lead is looked at when all are there.
   */
  private void makeLinks() throws IOException {
    for (Map.Entry<Path, String> link : links.entrySet()) {
      Path parent = link.getKey().getParent();
      Path target = Path.of(link.getValue());
      boolean within = !target.isAbsolute() && parent.resolve(target).normalize().startsWith(into);
      mustLeadInside(link.getKey(), within && !isBelowALink(parent));
      Files.createDirectories(parent);
      Files.createSymbolicLink(link.getKey(), target);
    }
    for (Path link : links.keySet()) {
      mustLeadInside(link, Files.exists(link) && link.toRealPath().startsWith(into.toRealPath()));
    }
  }

  private boolean isBelowALink(Path folder) {
    for (Path above = folder; above.startsWith(into); above = above.getParent()) {
      if (links.containsKey(above)) {
        return true;
      }
    }
    return false;
  }

  private void mustLeadInside(Path link, boolean inside) throws IOException {
    if (!inside) {
      throw new IOException(
          "entry '" + into.relativize(link) + "' is a link that leads to nothing in the archive");
    }
  }

  private static void mustBePlain(String name, boolean link) throws IOException {
    if (link) {
      throw new IOException("entry '" + name + "' is a link or a device");
    }
  }

  private void put(String name, boolean folder, int mode, InputStream in) throws IOException {
    Path target = target(name, folder);
    if (folder) {
      Files.createDirectories(target);
      return;
    }
    Files.createDirectories(target.getParent());
    try (OutputStream out = Files.newOutputStream(target)) {
      copy(in, out);
    }
    if ((mode & ANY_EXECUTE) != 0) {
      Files.setPosixFilePermissions(target, PosixFilePermissions.fromString("rwxr-xr-x"));
    }
  }

  /** Where an entry goes. */
  private Path target(String name, boolean folder) throws IOException {
    Path target = into.resolve(name).normalize();
    if (!target.startsWith(into) || target.equals(into) && !folder) {
      throw new IOException("entry '" + name + "' points outside the archive");
    }
    if (++entries > MOST_ENTRIES) {
      throw new IOException("it has more than " + MOST_ENTRIES + " entries");
    }
    return target;
  }

  private void copy(InputStream in, OutputStream out) throws IOException {
    byte[] buffer = new byte[1 << 16];
    for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
      bytesLeft -= read;
      if (bytesLeft < 0) {
        throw new IOException("it unpacks to more than " + MOST_BYTES + " bytes");
      }
      out.write(buffer, 0, read);
    }
  }
}

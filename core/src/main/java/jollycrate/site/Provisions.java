package jollycrate.site;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;
import jollycrate.app.NotDescribedException;
import jollycrate.file.Digests;
import jollycrate.file.IoReason;
import jollycrate.file.Trees;
import jollycrate.host.Access;
import jollycrate.host.Account;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.Host;
import jollycrate.host.Ran;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarConstants;
import org.apache.commons.compress.compressors.gzip.GzipCompressorOutputStream;

/** Archives that are put on another machine and unpacked there, once for each digest. */
final class Provisions {
  private static final Duration UNPACKS_WITHIN = Duration.ofMinutes(5);
  private static final int SHOWN_DIGITS = 12;
  private static final String FOLDER = "rwxr-xr-x";

  private final Host host;
  private final Path under;

  /** On a machine, below a folder. */
  Provisions(Host host, Path under) {
    this.host = host;
    this.under = under;
  }

  /** Below the home of whoever works there. */
  static Provisions of(Host host) {
    return new Provisions(host, home(host).resolve(".local/share/jolly-crate"));
  }

  /** Home of whoever works on a machine. */
  static Path home(Host host) {
    String home = host.environment().getOrDefault("HOME", "");
    if (!home.startsWith("/")) {
      throw new NotDescribedException(
          "Cannot tell where to put things on '"
              + host.name()
              + "': whoever works there has no home. Give a --folder");
    }
    return Path.of(home);
  }

  /** Where what an archive holds stands. */
  Path place(Path archive) {
    try {
      String digest = Digests.of(archive).substring(0, SHOWN_DIGITS);
      return under.resolve(Unpacking.baseName(archive) + "-" + digest);
    } catch (IOException e) {
      throw cannot(archive, IoReason.of(e));
    }
  }

  /**
   * Unpacks an archive there unless that was done. It is unpacked here first, so that whatever an
   * archive may hold is kept within bounds, and leaves nothing there when it is none.
   *
   * @return its folder there
   */
  Path put(Path archive) {
    Path place = place(archive);
    if (host.files().facts(place).isFolder()) {
      return place;
    }
    Path work = Trees.temporary();
    try {
      Unpacking.unpack(archive, work.resolve("unpacked"));
      Path tar = work.resolve("all.tar.gz");
      pack(work.resolve("unpacked"), tar);
      unpack(tar, place);
      return place;
    } catch (IOException e) {
      throw cannot(archive, IoReason.of(e));
    } finally {
      Trees.discard(work);
    }
  }

  private static void pack(Path folder, Path tar) throws IOException {
    try (OutputStream out = Files.newOutputStream(tar);
        OutputStream smaller = new GzipCompressorOutputStream(out);
        TarArchiveOutputStream archive = new TarArchiveOutputStream(smaller, "UTF-8");
        Stream<Path> all = Files.walk(folder)) {
      archive.setLongFileMode(TarArchiveOutputStream.LONGFILE_POSIX);
      for (Path path : all.sorted().filter(path -> !path.equals(folder)).toList()) {
        String name = folder.relativize(path).toString();
        TarArchiveEntry entry = entry(path, name);
        entry.setIds(0, 0);
        entry.setNames("", "");
        archive.putArchiveEntry(entry);
        if (Files.isRegularFile(path, LinkOption.NOFOLLOW_LINKS)) {
          Files.copy(path, archive);
        }
        archive.closeArchiveEntry();
      }
    }
  }

  private static TarArchiveEntry entry(Path path, String name) throws IOException {
    if (Files.isSymbolicLink(path)) {
      TarArchiveEntry link = new TarArchiveEntry(name, TarConstants.LF_SYMLINK);
      link.setLinkName(Files.readSymbolicLink(path).toString());
      return link;
    }
    TarArchiveEntry entry = new TarArchiveEntry(path, name, LinkOption.NOFOLLOW_LINKS);
    entry.setMode(Files.isExecutable(path) ? 0755 : 0644);
    return entry;
  }

  /**
   * Built beside and renamed. Several people may do so at once: each in a folder of his own, and
   * the first one stays.
   */
  private void unpack(Path tar, Path place) {
    Access access = makeFolders(host, under);
    String own = "." + place.getFileName() + "-" + UUID.randomUUID();
    Path there = place.resolveSibling(own + ".tar.gz");
    Path beside = place.resolveSibling(own + ".part");
    host.files().put(there, Content.of(tar), access.with("rw-------"));
    try {
      host.files().makeFolder(beside, access.with(FOLDER));
      List<String> command = List.of("tar", "-xzpof", there.toString());
      Ran ran = host.processes().run(command, beside, host.environment(), "", UNPACKS_WITHIN);
      if (ran.exit() != 0) {
        host.files().deleteTree(beside);
        throw new NotDescribedException(
            "Cannot unpack '"
                + place.getFileName()
                + "' on '"
                + host.name()
                + "': "
                + ran.errors().strip()
                + ". It needs 'tar', 'gzip' and room there");
      }
      if (host.files().facts(place).isFolder()) {
        host.files().deleteTree(beside);
      } else {
        host.files().move(beside, place);
      }
    } finally {
      host.files().delete(there);
    }
  }

  /**
   * Makes a folder with all that it stands in.
   *
   * @return whose what is put into it is to be: root leaves it to whom the folder belongs to
   */
  static Access makeFolders(Host host, Path folder) {
    Facts facts = host.files().facts(host.files().real(folder));
    if (facts.isFolder()) {
      Access own = host.files().facts(home(host)).access();
      return own.owner().equals(Account.ROOT) ? facts.access() : own;
    }
    if (facts.exists() || folder.getParent() == null) {
      throw new NotDescribedException(
          "Cannot make '" + folder + "' on '" + host.name() + "': something stands in its place");
    }
    Access access = makeFolders(host, folder.getParent());
    Path real = host.files().real(folder.getParent()).resolve(folder.getFileName());
    host.files().makeFolder(real, access.with(FOLDER));
    return access;
  }

  private NotDescribedException cannot(Path archive, String reason) {
    return new NotDescribedException(
        "Cannot put '" + archive + "' on '" + host.name() + "': " + reason);
  }
}

package jollycrate.host;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.NoSuchFileException;
import java.nio.file.NotDirectoryException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFileAttributeView;
import java.nio.file.attribute.PosixFileAttributes;
import java.nio.file.attribute.PosixFilePermissions;
import java.nio.file.attribute.UserPrincipalLookupService;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import jollycrate.file.Digests;

/** Files of this machine. */
final class LocalFiles implements HostFiles {

  /** Something that may fail with an {@link IOException}. */
  @FunctionalInterface
  private interface Act<T> {
    T go() throws IOException;
  }

  private static <T> T doing(String verb, Path path, Act<T> act) {
    try {
      return act.go();
    } catch (IOException e) {
      throw HostException.cannot(verb, path, e);
    }
  }

  @Override
  public List<Facts> facts(List<Path> paths) {
    return paths.stream().map(LocalFiles::factsOf).toList();
  }

  private static Facts factsOf(Path path) {
    try {
      PosixFileAttributes found =
          Files.readAttributes(path, PosixFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
      Access access =
          new Access(
              PosixFilePermissions.toString(found.permissions()),
              found.owner().getName(),
              found.group().getName());
      String target = found.isSymbolicLink() ? Files.readSymbolicLink(path).toString() : "";
      long size = found.isRegularFile() ? found.size() : 0;
      return new Facts(
          path, typeOf(found), size, access, found.lastModifiedTime().toInstant(), target);
    } catch (NoSuchFileException | NotDirectoryException e) {
      return Facts.absent(path);
    } catch (IOException e) {
      if (belowAFile(path)) {
        return Facts.absent(path);
      }
      throw HostException.cannot("look at", path, e);
    }
  }

  /** Whether something that is no folder stands where a folder on the way would be (ENOTDIR). */
  private static boolean belowAFile(Path path) {
    for (Path above = path.getParent(); above != null; above = above.getParent()) {
      if (Files.exists(above)) {
        return !Files.isDirectory(above);
      }
    }
    return false;
  }

  private static Facts.Type typeOf(PosixFileAttributes found) {
    if (found.isSymbolicLink()) {
      return Facts.Type.LINK;
    }
    if (found.isDirectory()) {
      return Facts.Type.FOLDER;
    }
    return found.isRegularFile() ? Facts.Type.FILE : Facts.Type.OTHER;
  }

  @Override
  public List<Path> list(Path folder) {
    return doing(
        "list",
        folder,
        () -> {
          if (!Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)) {
            return List.of();
          }
          try (Stream<Path> children = Files.list(folder)) {
            return children.sorted().toList();
          }
        });
  }

  @Override
  public String digest(Path file) {
    return doing("read", file, () -> Digests.of(regular(file)));
  }

  /**
   * A link is not followed, and a pipe or a device might never end, or never begin. One look only:
   * a file may come or go at any time.
   */
  private static Path regular(Path file) throws IOException {
    BasicFileAttributes there;
    try {
      there = Files.readAttributes(file, BasicFileAttributes.class, LinkOption.NOFOLLOW_LINKS);
    } catch (FileSystemException notThere) {
      return file;
    }
    if (there.isRegularFile()) {
      return file;
    }
    throw new IOException(there.isSymbolicLink() ? "it is a link" : "it is no regular file");
  }

  @Override
  public byte[] read(Path file, long offset, int most) {
    return doing(
        "read",
        file,
        () -> {
          try (FileChannel channel =
              FileChannel.open(regular(file), StandardOpenOption.READ, LinkOption.NOFOLLOW_LINKS)) {
            channel.position(Math.min(offset, channel.size()));
            InputStream in = Channels.newInputStream(channel);
            return in.readNBytes(most);
          } catch (NoSuchFileException e) {
            return new byte[0];
          } catch (FileSystemException e) {
            if (belowAFile(file)) {
              return new byte[0];
            }
            throw e;
          }
        });
  }

  @Override
  public void put(Path file, Content content, Access access) {
    Path beside = HostFiles.beside(file);
    doing(
        "write",
        file,
        () -> {
          Files.deleteIfExists(beside);
          write(beside, content, access);
          Files.move(
              beside, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
          Digests.written(file, content.digest());
          sync(file.getParent());
          return file;
        });
  }

  private static void write(Path beside, Content content, Access access) throws IOException {
    try (FileChannel channel =
        FileChannel.open(
            beside,
            Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE),
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")))) {
      OutputStream out = Channels.newOutputStream(channel);
      String written;
      try (InputStream in = content.open()) {
        written = Digests.copying(in, out);
      }
      if (!written.equals(content.digest())) {
        throw new IOException("the source changed while it was copied");
      }
      grant(beside, access);
      channel.force(true);
    } catch (IOException e) {
      Files.deleteIfExists(beside);
      throw e;
    }
  }

  private static void grant(Path path, Access access) throws IOException {
    PosixFileAttributeView view =
        Files.getFileAttributeView(path, PosixFileAttributeView.class, LinkOption.NOFOLLOW_LINKS);
    PosixFileAttributes now = view.readAttributes();
    UserPrincipalLookupService names = path.getFileSystem().getUserPrincipalLookupService();
    if (!now.group().getName().equals(access.group())) {
      view.setGroup(names.lookupPrincipalByGroupName(access.group()));
    }
    if (!now.owner().getName().equals(access.owner())) {
      view.setOwner(names.lookupPrincipalByName(access.owner()));
    }
    view.setPermissions(PosixFilePermissions.fromString(access.mode()));
  }

  @Override
  public void copy(Path from, Path to) {
    doing(
        "copy",
        from,
        () -> {
          put(to, Content.of(regular(from)), factsOf(from).access());
          return to;
        });
  }

  @Override
  public void write(Path file, long offset, byte[] bytes) {
    doing(
        "write",
        file,
        () -> {
          try (FileChannel channel = FileChannel.open(regular(file), StandardOpenOption.WRITE)) {
            ByteBuffer left = ByteBuffer.wrap(bytes);
            while (left.hasRemaining()) {
              channel.write(left, offset + left.position());
            }
            channel.force(true);
            return file;
          }
        });
  }

  @Override
  public void append(Path file, byte[] bytes) {
    doing(
        "append to",
        file,
        () -> {
          try (FileChannel channel =
              FileChannel.open(
                  regular(file), StandardOpenOption.WRITE, StandardOpenOption.APPEND)) {
            ByteBuffer left = ByteBuffer.wrap(bytes);
            while (left.hasRemaining()) {
              channel.write(left);
            }
            channel.force(true);
            return file;
          }
        });
  }

  @Override
  public void makeFolder(Path folder, Access access) {
    doing(
        "make folder",
        folder,
        () -> {
          Files.createDirectory(folder);
          grant(folder, access);
          sync(folder.getParent());
          return folder;
        });
  }

  @Override
  public void move(Path from, Path to) {
    doing(
        "rename",
        from,
        () -> {
          try {
            Files.move(
                from, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
          } catch (AtomicMoveNotSupportedException otherFileSystem) {
            copy(from, to);
            Files.delete(from);
          }
          sync(to.getParent());
          if (!from.getParent().equals(to.getParent())) {
            sync(from.getParent());
          }
          return to;
        });
  }

  @Override
  public void touch(Path file) {
    doing(
        "set the time of",
        file,
        () -> Files.setLastModifiedTime(regular(file), FileTime.from(Instant.now())));
  }

  @Override
  public void delete(Path path) {
    doing(
        "delete",
        path,
        () -> {
          if (Files.deleteIfExists(path)) {
            sync(path.getParent());
          }
          return path;
        });
  }

  @Override
  public Path real(Path path) {
    return doing("look at", path, () -> Files.exists(path) ? path.toRealPath() : path);
  }

  @Override
  public long free(Path folder) {
    return doing("look at", folder, () -> Files.getFileStore(folder).getUsableSpace());
  }

  @Override
  public boolean writable(Path folder) {
    return Files.isWritable(folder);
  }

  private static void sync(Path folder) throws IOException {
    try (FileChannel channel = FileChannel.open(folder, StandardOpenOption.READ)) {
      channel.force(true);
    }
  }
}

package jollycrate.ssh;

import com.jcraft.jsch.HostKey;
import com.jcraft.jsch.HostKeyRepository;
import com.jcraft.jsch.JSch;
import com.jcraft.jsch.JSchException;
import com.jcraft.jsch.UserInfo;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;

/** Keys of machines that are trusted, in files as {@code sshd(8)} describes them. */
final class KnownKeys {
  private final List<Path> files;

  KnownKeys(List<Path> files) {
    this.files = files;
  }

  /**
   * A key that stands in a file.
   *
   * @param line from 1
   */
  record Kept(Path file, int line, String fingerprint) {}

  /** Lets a client trust what stands in the files, and nothing else. */
  void trustedBy(JSch client) throws JSchException {
    StringBuilder all = new StringBuilder();
    files.forEach(file -> lines(file).forEach(line -> all.append(line).append('\n')));
    client.setKnownHosts(new ByteArrayInputStream(all.toString().getBytes(StandardCharsets.UTF_8)));
  }

  /** The key of a type that a name has. */
  Optional<Kept> kept(String name, String type) {
    for (Path file : files) {
      List<String> lines = lines(file);
      for (int i = 0; i < lines.size(); i++) {
        Optional<String> fingerprint = fingerprint(lines.get(i), name, type);
        if (fingerprint.isPresent()) {
          return Optional.of(new Kept(file, i + 1, fingerprint.get()));
        }
      }
    }
    return Optional.empty();
  }

  /** The library knows hashed names, patterns and markers. */
  private static Optional<String> fingerprint(String line, String name, String type) {
    JSch reader = new JSch();
    try {
      reader.setKnownHosts(
          new ByteArrayInputStream((line + "\n").getBytes(StandardCharsets.UTF_8)));
      for (HostKey key : reader.getHostKeyRepository().getHostKey(name, type)) {
        return Optional.of(fingerprint(Base64.getDecoder().decode(key.getKey())));
      }
      return Optional.empty();
    } catch (JSchException unreadable) {
      return Optional.empty();
    }
  }

  /** As {@code ssh-keygen -l} writes it. */
  static String fingerprint(byte[] key) {
    try {
      byte[] digest = MessageDigest.getInstance("SHA-256").digest(key);
      return "SHA256:" + Base64.getEncoder().withoutPadding().encodeToString(digest);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  /** The file that the user may write. */
  Path own() {
    return files.get(0);
  }

  /** Trusts a key, in place of the one of its type that was trusted before. */
  void trust(String name, String type, byte[] key) {
    String line = name + " " + type + " " + Base64.getEncoder().encodeToString(key);
    Optional<Kept> before = kept(name, type);
    if (before.filter(kept -> !kept.file().equals(own())).isPresent()) {
      throw new HostException(
          "Cannot trust another key: line "
              + before.get().line()
              + " of '"
              + before.get().file()
              + "' has the one before, and is not yours alone. Take it out there first");
    }
    List<String> lines = new ArrayList<>(lines(own()));
    before.ifPresentOrElse(kept -> lines.set(kept.line() - 1, line), () -> lines.add(line));
    try {
      write(String.join("\n", lines) + "\n");
    } catch (IOException e) {
      throw HostException.cannot("write", own(), e);
    }
  }

  private void write(String text) throws IOException {
    Path folder = own().getParent();
    if (Files.notExists(folder)) {
      Files.createDirectories(
          folder,
          PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    }
    if (Files.isSymbolicLink(own())) {
      Files.writeString(own(), text);
      return;
    }
    Path beside = HostFiles.beside(own());
    Files.deleteIfExists(beside);
    Files.createFile(
        beside, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
    Files.writeString(beside, text, StandardOpenOption.SYNC);
    if (Files.exists(own())) {
      Files.setPosixFilePermissions(beside, Files.getPosixFilePermissions(own()));
    }
    Files.move(beside, own(), StandardCopyOption.ATOMIC_MOVE);
  }

  private static List<String> lines(Path file) {
    try {
      return Files.isRegularFile(file) ? Files.readAllLines(file) : List.of();
    } catch (IOException e) {
      throw HostException.cannot("read", file, e);
    }
  }

  /** Remembers the key that a machine shows, and trusts none. */
  static final class Shown implements HostKeyRepository {
    private byte[] key = new byte[0];

    @Override
    public int check(String host, byte[] shown) {
      key = shown.clone();
      return NOT_INCLUDED;
    }

    /** The key, with its type in front (RFC 4253, section 6.6). */
    byte[] key() {
      return key.clone();
    }

    @Override
    public void add(HostKey hostkey, UserInfo ui) {}

    @Override
    public void remove(String host, String type) {}

    @Override
    public void remove(String host, String type, byte[] shown) {}

    @Override
    public String getKnownHostsRepositoryID() {
      return "none";
    }

    @Override
    public HostKey[] getHostKey() {
      return new HostKey[0];
    }

    @Override
    public HostKey[] getHostKey(String host, String type) {
      return new HostKey[0];
    }
  }
}

package jollycrate.pack;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;
import jollycrate.file.Stamp;

/** Where the content of an entry comes from. */
sealed interface Source {
  /** Bytes of the content. */
  long size();

  /** How messages call it. */
  String place();

  /** The content. */
  InputStream open() throws IOException;

  /**
   * A file.
   *
   * @param stamp from before anything of it was read
   */
  record OfFile(Path path, long size, Optional<Stamp> stamp) implements Source {
    /** A file as it stands now, a link followed. */
    static OfFile at(Path path) throws IOException {
      Optional<Stamp> stamp = Stamp.of(path);
      return new OfFile(path, stamp.isPresent() ? stamp.get().size() : Files.size(path), stamp);
    }

    @Override
    public String place() {
      return path.toString();
    }

    @Override
    public InputStream open() throws IOException {
      return Files.newInputStream(path);
    }
  }

  /** Made while packing. */
  record OfBytes(byte[] bytes, String place) implements Source {
    @Override
    public long size() {
      return bytes.length;
    }

    @Override
    public InputStream open() {
      return new ByteArrayInputStream(bytes);
    }
  }

  /** An entry of a library, taken over as it is compressed there. */
  record OfMember(ZipArchive archive, ZipMember member, String library) implements Source {
    @Override
    public long size() {
      return member.size();
    }

    @Override
    public String place() {
      return library + "!/" + member.name();
    }

    @Override
    public InputStream open() throws IOException {
      return archive.open(member);
    }
  }
}

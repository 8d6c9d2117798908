package jollycrate.server;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import jollycrate.file.Digests;
import jollycrate.host.Access;
import jollycrate.host.Content;

/** Something wanted on a server. */
public sealed interface Piece {
  /** The file or folder it is, or stands in. */
  Path path();

  /** When the server takes notice. */
  PickUp pickUp();

  /** What it does in a swap. */
  Part part();

  /** Digest of its content; {@link Standing#FOLDER} for a folder. */
  String digest();

  /** A whole file of ours. */
  record WholeFile(Path path, Content content, Access access, Part part, PickUp pickUp)
      implements Piece {
    @Override
    public String digest() {
      return content.digest();
    }

    /** Whether a running server takes notice at its next start only. */
    public boolean restarts() {
      return pickUp == PickUp.RESTART;
    }
  }

  /** A folder that must be there. */
  record Folder(Path path, Access access) implements Piece {
    @Override
    public PickUp pickUp() {
      return PickUp.LIVE;
    }

    @Override
    public Part part() {
      return Part.SUPPORT;
    }

    @Override
    public String digest() {
      return Standing.FOLDER;
    }
  }

  /**
   * A keyed insertion into a file that belongs to somebody else.
   *
   * @param name the key inside the file
   */
  record Fragment(Path path, String name, String text, Part part, PickUp pickUp) implements Piece {
    @Override
    public String digest() {
      return Digests.of(text.getBytes(StandardCharsets.UTF_8));
    }
  }
}

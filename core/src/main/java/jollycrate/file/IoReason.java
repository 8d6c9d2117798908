package jollycrate.file;

import java.io.IOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.PosixFilePermissions;

/** Why something could not be done with a file, in words that end a sentence. */
public final class IoReason {
  private IoReason() {}

  /** Of an exception that the platform threw. */
  public static String of(Exception cause) {
    if (cause instanceof AccessDeniedException denied) {
      return "permission denied" + whose(Path.of(denied.getFile()).toAbsolutePath());
    }
    if (cause instanceof NoSuchFileException) {
      return "there is no such file";
    }
    if (cause instanceof FileSystemException e && e.getReason() != null) {
      return e.getReason();
    }
    return cause.getMessage() == null ? cause.getClass().getSimpleName() : cause.getMessage();
  }

  /** The innermost place on the way that keeps us out, and who could change that. */
  private static String whose(Path path) {
    String user = System.getProperty("user.name");
    for (Path place = path; place != null; place = place.getParent()) {
      try {
        if (keepsOut(place)) {
          String owner = Files.getOwner(place).getName();
          String mode = PosixFilePermissions.toString(Files.getPosixFilePermissions(place));
          String next =
              owner.equals(user)
                  ? "Change its mode"
                  : "Run this as " + owner + ", or let " + user + " in there";
          return ". '" + place + "' belongs to " + owner + " (" + mode + "). " + next;
        }
      } catch (IOException hidden) {
        continue;
      }
    }
    return "";
  }

  private static boolean keepsOut(Path place) throws IOException {
    boolean folder = Files.readAttributes(place, BasicFileAttributes.class).isDirectory();
    return !Files.isReadable(place)
        || !Files.isWritable(place)
        || folder && !Files.isExecutable(place);
  }
}

package jollycrate.file;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Folders with all that is in them. */
public final class Trees {
  private static final AtomicBoolean SWEPT = new AtomicBoolean();

  private Trees() {}

  /**
   * A new folder of this user's own among the temporary ones. What processes left there that were
   * killed goes with the first.
   */
  public static Path temporary() {
    try {
      String prefix = "jolly-" + processNameSpace() + "-";
      Path folder = Files.createTempDirectory(prefix + ProcessHandle.current().pid() + "-");
      if (!SWEPT.getAndSet(true)) {
        sweep(folder, prefix);
      }
      return folder;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Process ids mean something in one of them only (pid_namespaces(7)). */
  private static String processNameSpace() {
    try {
      return Files.readSymbolicLink(Path.of("/proc/self/ns/pid")).toString().replaceAll("\\D", "");
    } catch (IOException | UnsupportedOperationException untold) {
      return "0";
    }
  }

  /** Only folders of the same user whose process is gone, where that can be told. */
  private static void sweep(Path own, String prefix) throws IOException {
    if (prefix.equals("jolly-0-")) {
      return;
    }
    Pattern left = Pattern.compile(Pattern.quote(prefix) + "(\\d+)-.*");
    try (DirectoryStream<Path> folders = Files.newDirectoryStream(own.getParent(), prefix + "*")) {
      for (Path folder : folders) {
        Matcher name = left.matcher(folder.getFileName().toString());
        boolean gone = name.matches() && ProcessHandle.of(Long.parseLong(name.group(1))).isEmpty();
        if (gone && Files.getOwner(folder).equals(Files.getOwner(own))) {
          deleteWhatGoes(folder);
        }
      }
    }
  }

  /** Another command may sweep the same just now. */
  private static void deleteWhatGoes(Path folder) {
    try {
      delete(folder);
    } catch (IOException | UncheckedIOException goesElsewhere) {
      return;
    }
  }

  /** The same as {@link #delete}, where nothing can be done about a failure. */
  public static void discard(Path tree) {
    try {
      delete(tree);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Deletes a folder or file, links as links; nothing when it is not there. */
  public static void delete(Path tree) throws IOException {
    if (!Files.exists(tree, LinkOption.NOFOLLOW_LINKS)) {
      return;
    }
    try (Stream<Path> files = Files.walk(tree)) {
      for (Path file : files.sorted(Comparator.reverseOrder()).toList()) {
        Files.delete(file);
      }
    }
  }
}

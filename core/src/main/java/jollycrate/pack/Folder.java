package jollycrate.pack;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.FileSystems;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;

/**
 * Walks a folder of the project for what is wanted in an archive. Links are not followed, and what
 * nobody wants delivered stays outside and is told.
 */
final class Folder {
  private static final Set<String> VERSION_CONTROL =
      Set.of(".git", ".svn", ".hg", ".bzr", "CVS", "_darcs", ".gitignore", ".gitattributes");
  private static final Set<String> DESKTOP = Set.of(".DS_Store", "Thumbs.db", "desktop.ini");
  private static final Set<String> EDITOR =
      Set.of(".idea", ".vscode", ".settings", ".project", ".classpath");

  /** A file found. */
  record Found(Path file, String name, long size) {}

  private final Contents contents;
  private final List<PathMatcher> patterns;

  Folder(Contents contents, List<String> leaveOut) {
    this.contents = contents;
    this.patterns = leaveOut.stream().map(Folder::matcher).toList();
  }

  private static PathMatcher matcher(String pattern) {
    return FileSystems.getDefault().getPathMatcher("glob:" + pattern);
  }

  /** Adds the files of a folder under a prefix. */
  void add(Path folder, String prefix, String part) throws IOException {
    add(folder, prefix, part, found -> true);
  }

  /** Adds the wanted ones. */
  void add(Path folder, String prefix, String part, Predicate<Found> wanted) throws IOException {
    for (Found found : files(folder, prefix)) {
      if (wanted.test(found)) {
        contents.add(
            new Entry(found.name(), new Source.OfFile(found.file(), found.size()), part, false));
      }
    }
  }

  /** Adds one file unless a pattern leaves it out. */
  void addFile(Path file, String name, String part) throws IOException {
    if (isLeftOut(name)) {
      contents.leaveOut(name, "asked for by 'leave-out'", Files.size(file));
    } else {
      contents.addFile(file, name, part);
    }
  }

  /** Whether a pattern leaves a path out. */
  boolean isLeftOut(String name) {
    if (patterns.isEmpty()) {
      return false;
    }
    Path path = Path.of(name);
    return patterns.stream().anyMatch(pattern -> pattern.matches(path));
  }

  /** Every wanted file of a folder. */
  List<Found> files(Path folder, String prefix) throws IOException {
    List<Found> files = new ArrayList<>();
    Files.walkFileTree(folder, new Visitor(folder, prefix, files));
    return files;
  }

  private final class Visitor extends SimpleFileVisitor<Path> {
    private final Path root;
    private final int rootLength;
    private final String prefix;
    private final List<Found> files;

    Visitor(Path root, String prefix, List<Found> files) {
      this.root = root;
      this.rootLength = root.toString().length() + (root.toString().endsWith("/") ? 0 : 1);
      this.prefix = prefix;
      this.files = files;
    }

    private String name(Path file) {
      String inside = file.toString().substring(rootLength);
      return prefix + inside.replace(file.getFileSystem().getSeparator(), "/");
    }

    @Override
    public FileVisitResult preVisitDirectory(Path folder, BasicFileAttributes facts) {
      return folder.equals(root) || wanted(folder, facts)
          ? FileVisitResult.CONTINUE
          : FileVisitResult.SKIP_SUBTREE;
    }

    @Override
    public FileVisitResult visitFile(Path file, BasicFileAttributes facts) {
      if (wanted(file, facts)) {
        if (!facts.isRegularFile()) {
          throw new PackException(
              "Cannot pack '" + file + "': it is neither a file nor a folder. Remove it");
        }
        files.add(new Found(file, name(file), facts.size()));
      }
      return FileVisitResult.CONTINUE;
    }

    @Override
    public FileVisitResult visitFileFailed(Path file, IOException e) {
      throw new PackException(
          e instanceof java.nio.file.AccessDeniedException
              ? "Cannot pack '" + file + "': it cannot be read. Mend its rights"
              : "Cannot pack '" + file + "': it vanished meanwhile. Pack again");
    }

    private boolean wanted(Path file, BasicFileAttributes facts) {
      String name = name(file);
      String reason = reasonToLeaveOut(file, facts, name);
      if (!reason.isEmpty()) {
        contents.leaveOut(name, reason, facts.isRegularFile() ? facts.size() : 0);
      }
      return reason.isEmpty();
    }
  }

  private String reasonToLeaveOut(Path file, BasicFileAttributes facts, String name) {
    String simple = file.getFileName().toString();
    if (VERSION_CONTROL.contains(simple)) {
      return "belongs to version control";
    }
    if (DESKTOP.contains(simple)) {
      return "left by a desktop";
    }
    boolean swap = simple.startsWith(".") && simple.matches(".*\\.sw[a-p]");
    boolean autosave = simple.startsWith("#") && simple.endsWith("#") || simple.startsWith(".#");
    if (EDITOR.contains(simple) || simple.endsWith("~") || swap || autosave) {
      return "left by an editor";
    }
    if (facts.isSymbolicLink()) {
      return "a symbolic link";
    }
    return isLeftOut(name) ? "asked for by 'leave-out'" : "";
  }

  /** A folder of the project that must be there. */
  static Path at(Path folder, String key) {
    if (!Files.isDirectory(folder)) {
      throw new PackException(
          "Cannot pack '"
              + folder
              + "': there is no such folder. Build the project first, or mend '"
              + key
              + "' in [pack]");
    }
    return folder;
  }

  /** A path as it really is, through links. */
  static Path real(Path path) {
    try {
      return path.toRealPath();
    } catch (NoSuchFileException absent) {
      return path.toAbsolutePath().normalize();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}

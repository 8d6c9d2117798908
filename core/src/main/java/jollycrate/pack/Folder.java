package jollycrate.pack;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.AccessDeniedException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import jollycrate.file.FileFacts;

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

  private static final String ASKED_FOR = "asked for by 'leave-out'";

  /** A file found. */
  record Found(Path file, String name, FileFacts facts) {}

  private final Contents contents;
  private final List<PathMatcher> patterns;
  private final List<Path> leftLibraries = new ArrayList<>();

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
            new Entry(
                found.name(),
                new Source.OfFile(found.file(), found.facts().size(), found.facts().stamp()),
                part,
                false));
      }
    }
  }

  /** Adds one file unless a pattern leaves it out. */
  void addFile(Path file, String name, String part) throws IOException {
    if (isLeftOut(name)) {
      contents.leaveOut(name, ASKED_FOR, Files.size(file));
      noteLibrary(file);
    } else {
      contents.addFile(file, name, part);
    }
  }

  private void noteLibrary(Path file) {
    if (file.toString().endsWith(".jar")) {
      leftLibraries.add(file);
    }
  }

  /** Libraries that a pattern leaves out. */
  List<Path> leftLibraries() {
    return leftLibraries;
  }

  /** Whether a pattern leaves a path out. */
  boolean isLeftOut(String name) {
    if (patterns.isEmpty()) {
      return false;
    }
    Path path = Path.of(name);
    return patterns.stream().anyMatch(pattern -> pattern.matches(path));
  }

  /** Every wanted file of a folder, in the order of their paths. */
  List<Found> files(Path folder, String prefix) throws IOException {
    List<Found> files = new ArrayList<>();
    walk(folder, prefix, files);
    return files;
  }

  /** A child of a folder, named as it sorts: a folder's name ends with a slash. */
  private record Child(String name, Path path, FileFacts facts) {
    boolean is(FileFacts.Type type) {
      return facts.type() == type;
    }
  }

  private void walk(Path folder, String prefix, List<Found> files) throws IOException {
    List<Child> children = new ArrayList<>();
    try (DirectoryStream<Path> stream = Files.newDirectoryStream(folder)) {
      for (Path path : stream) {
        FileFacts facts = FileFacts.of(path);
        String name = path.getFileName().toString();
        boolean inner = facts.type() == FileFacts.Type.FOLDER;
        children.add(new Child(inner ? name + "/" : name, path, facts));
      }
    } catch (AccessDeniedException e) {
      throw new PackException("Cannot pack '" + folder + "': it cannot be read. Fix its rights");
    } catch (NoSuchFileException e) {
      throw new PackException(
          "Cannot pack '" + e.getFile() + "': it vanished meanwhile. Pack again");
    } catch (DirectoryIteratorException e) {
      throw e.getCause();
    }
    children.sort(Comparator.comparing(Child::name));
    for (Child child : children) {
      visit(child, prefix, files);
    }
  }

  private void visit(Child child, String prefix, List<Found> files) throws IOException {
    String name = prefix + child.name();
    boolean folder = child.is(FileFacts.Type.FOLDER);
    String path = folder ? name.substring(0, name.length() - 1) : name;
    String reason = reasonToLeaveOut(child, path);
    if (!reason.isEmpty()) {
      contents.leaveOut(path, reason, child.is(FileFacts.Type.FILE) ? child.facts().size() : 0);
      if (reason.equals(ASKED_FOR)) {
        noteLibrary(child.path());
      }
    } else if (folder) {
      walk(child.path(), name, files);
    } else if (child.is(FileFacts.Type.FILE)) {
      files.add(new Found(child.path(), name, child.facts()));
    } else {
      throw new PackException(
          "Cannot pack '" + child.path() + "': it is neither a file nor a folder. Remove it");
    }
  }

  private String reasonToLeaveOut(Child child, String name) {
    String simple = name.substring(name.lastIndexOf('/') + 1);
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
    if (child.is(FileFacts.Type.LINK)) {
      return "a symbolic link";
    }
    return isLeftOut(name) ? ASKED_FOR : "";
  }

  /** A folder of the project that must be there. */
  static Path at(Path folder, String key) {
    if (!Files.isDirectory(folder)) {
      throw new PackException(
          "Cannot pack '"
              + folder
              + "': there is no such folder. Build the project first, or fix '"
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

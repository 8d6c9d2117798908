package jollycrate.pack;

import java.io.IOException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;

/** Collects the files of an archive: sorted by path, without what nobody wants delivered. */
final class Contents {
  private static final Set<String> VERSION_CONTROL =
      Set.of(".git", ".svn", ".hg", ".bzr", "CVS", "_darcs", ".gitignore", ".gitattributes");
  private static final Set<String> DESKTOP = Set.of(".DS_Store", "Thumbs.db", "desktop.ini");
  private static final Set<String> EDITOR =
      Set.of(".idea", ".vscode", ".settings", ".project", ".classpath");

  /** A file on its way into the archive. */
  record Entry(Path source, long bytes, String part) {}

  private final TreeMap<String, Entry> entries = new TreeMap<>();
  private final List<Packed.LeftOut> leftOut = new ArrayList<>();
  private final List<PathMatcher> patterns;

  Contents(List<String> leaveOut) {
    this.patterns =
        leaveOut.stream()
            .map(pattern -> FileSystems.getDefault().getPathMatcher("glob:" + pattern))
            .toList();
  }

  Map<String, Entry> entries() {
    return entries;
  }

  List<Packed.LeftOut> leftOut() {
    return leftOut;
  }

  void addFolder(Path folder, String prefix, String part) throws IOException {
    try (Stream<Path> children = Files.list(folder)) {
      for (Path child : children.sorted().toList()) {
        String name = prefix + child.getFileName();
        String reason = reasonToLeaveOut(child, name);
        if (!reason.isEmpty()) {
          leftOut.add(new Packed.LeftOut(name, reason));
        } else if (Files.isDirectory(child)) {
          addFolder(child, name + "/", part);
        } else {
          addFile(child, name, part);
        }
      }
    }
  }

  void addFile(Path file, String name, String part) throws IOException {
    if (!Files.isReadable(file)) {
      throw new PackException("Cannot pack '" + file + "': it cannot be read. Mend its rights");
    }
    if (patterns.stream().anyMatch(pattern -> pattern.matches(Path.of(name)))) {
      leftOut.add(new Packed.LeftOut(name, "asked for by 'leave-out'"));
    } else if (entries.containsKey(name)) {
      leftOut.add(
          new Packed.LeftOut(
              name, "'" + entries.get(name).source() + "' stands there already; it wins"));
    } else {
      entries.put(name, new Entry(file, Files.size(file), part));
    }
  }

  private String reasonToLeaveOut(Path file, String name) throws IOException {
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
    if (Files.isSymbolicLink(file)) {
      return "a symbolic link";
    }
    return patterns.stream().anyMatch(pattern -> pattern.matches(Path.of(name)))
        ? "asked for by 'leave-out'"
        : "";
  }
}

package jollycrate.pack;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import jollycrate.file.Digests;

/** Collects what goes into an archive, sorted by path; nothing becomes what it should not. */
final class Contents {
  private static final int LONGEST_NAME = 0xFFFF;

  private final Map<String, Entry> entries = new LinkedHashMap<>();
  private String lastFolder = "";
  private final Map<String, String> anyCase = new HashMap<>();
  private final Set<String> folders = new HashSet<>();
  private final List<Packed.LeftOut> leftOut = new ArrayList<>();
  private final List<Packed.Remark> remarks = new ArrayList<>();

  /** By path, in no order that counts. */
  Map<String, Entry> entries() {
    return entries;
  }

  /** In the order of their paths. */
  List<Entry> sorted() {
    List<Entry> sorted = new ArrayList<>(entries.values());
    sorted.sort(Comparator.comparing(Entry::name));
    return sorted;
  }

  List<Packed.LeftOut> leftOut() {
    return leftOut;
  }

  List<Packed.Remark> remarks() {
    return remarks;
  }

  void leaveOut(String path, String reason, long bytes) {
    leftOut.add(new Packed.LeftOut(path, reason, bytes));
  }

  void remark(String text, List<String> details) {
    remarks.add(new Packed.Remark(false, text, List.copyOf(details)));
  }

  void warn(String text, List<String> details) {
    remarks.add(new Packed.Remark(true, text, List.copyOf(details)));
  }

  void add(String name, byte[] bytes, String part) throws IOException {
    add(new Entry(name, new Source.OfBytes(bytes, name), part, false));
  }

  void add(String name, String text, String part) throws IOException {
    add(name, text.getBytes(StandardCharsets.UTF_8), part);
  }

  void addFile(Path file, String name, String part) throws IOException {
    try {
      add(new Entry(name, Source.OfFile.at(file), part, false));
    } catch (NoSuchFileException e) {
      throw new PackException("Cannot pack '" + file + "': there is no such file");
    }
  }

  /**
   * Adds an entry. The same content twice is no matter.
   *
   * @throws PackException when another content has that name
   */
  void add(Entry entry) throws IOException {
    String name = entry.name();
    if (name.length() > LONGEST_NAME / 3
        && name.getBytes(StandardCharsets.UTF_8).length > LONGEST_NAME) {
      throw new PackException(
          "Cannot pack '" + entry.source().place() + "': its path is too long for an archive");
    }
    if (name.contains("\\") || name.contains(":")) {
      throw new PackException(
          "Cannot pack '"
              + entry.source().place()
              + "': a name with '\\' or ':' does not stand for the same file everywhere. Rename it");
    }
    Entry stands = entries.get(name);
    if (stands != null) {
      if (!same(stands, entry)) {
        throw clash(stands, entry, "both become '" + name + "' and differ", "Remove one of them");
      }
      return;
    }
    String other = anyCase.putIfAbsent(name.toLowerCase(Locale.ROOT), name);
    if (other != null && !ofOneLibrary(entries.get(other), entry)) {
      throw clash(
          entries.get(other),
          entry,
          "'"
              + other
              + "' and '"
              + name
              + "' differ in case only and cannot stand together in a"
              + " folder on every machine",
          "Rename one of them, or name one in 'leave-out'");
    }
    noFileIsFolder(entry);
    entries.put(name, entry);
  }

  /** Replaces what stands under a name, or adds it. */
  void replace(Entry entry) throws IOException {
    if (entries.containsKey(entry.name())) {
      entries.put(entry.name(), entry);
    } else {
      add(entry);
    }
  }

  private void noFileIsFolder(Entry entry) {
    String name = entry.name();
    Entry file = null;
    String parent = name.substring(0, name.lastIndexOf('/') + 1);
    boolean known = parent.equals(lastFolder);
    lastFolder = parent;
    for (int slash = name.indexOf('/');
        slash >= 0 && !known;
        slash = name.indexOf('/', slash + 1)) {
      String folder = name.substring(0, slash);
      folders.add(folder);
      file = file == null ? entries.get(folder) : file;
    }
    if (file != null) {
      throw clash(file, entry, "a file would be a folder too", "Rename one of them");
    }
    if (folders.contains(name)) {
      throw new PackException(
          "Cannot pack '"
              + entry.source().place()
              + "': '"
              + name
              + "' is a folder already. Rename one of them");
    }
  }

  private static PackException clash(Entry one, Entry other, String reason, String fix) {
    return new PackException(
        "Cannot pack '"
            + one.source().place()
            + "' and '"
            + other.source().place()
            + "': "
            + reason
            + ". "
            + fix);
  }

  /** What stood together in an archive may stand together in another. */
  private static boolean ofOneLibrary(Entry one, Entry other) {
    return one.source() instanceof Source.OfMember a
        && other.source() instanceof Source.OfMember b
        && a.library().equals(b.library());
  }

  private static boolean same(Entry one, Entry other) throws IOException {
    return one.source().size() == other.source().size() && digest(one).equals(digest(other));
  }

  private static String digest(Entry entry) throws IOException {
    try (var in = entry.source().open()) {
      return Digests.copying(in, OutputStream.nullOutputStream());
    }
  }
}

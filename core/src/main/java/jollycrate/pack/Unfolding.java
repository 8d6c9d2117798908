package jollycrate.pack;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Predicate;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;
import jollycrate.file.Digests;

/** A folder that holds what an archive holds, and follows it: only what changed is written. */
public final class Unfolding {
  private final Path folder;
  private final TreeMap<String, String> held = new TreeMap<>();

  /** Into a folder that is made for it. */
  public Unfolding(Path folder) {
    this.folder = folder;
  }

  /** The folder. */
  public Path folder() {
    return folder;
  }

  /** Paths inside an archive that are not the same here, and those that it does not have. */
  public List<String> changesTo(Path archive) throws IOException {
    try (ZipArchive zip = ZipArchive.open(archive)) {
      Map<String, String> wanted = contents(zip);
      Set<String> changed = new TreeSet<>(held.keySet());
      changed.addAll(wanted.keySet());
      changed.removeIf(name -> Objects.equals(held.get(name), wanted.get(name)));
      return List.copyOf(changed);
    }
  }

  /** Makes the folder the same as an archive. */
  public void follow(Path archive) throws IOException {
    try (ZipArchive zip = ZipArchive.open(archive)) {
      Map<String, String> wanted = contents(zip);
      for (String name : changesTo(archive)) {
        if (wanted.containsKey(name)) {
          write(zip, zip.member(name).orElseThrow());
        } else {
          Files.deleteIfExists(place(name));
        }
      }
      held.clear();
      held.putAll(wanted);
    }
  }

  private static Map<String, String> contents(ZipArchive zip) {
    Map<String, String> contents = new TreeMap<>();
    for (ZipMember member : zip.members()) {
      if (!member.isFolder()) {
        contents.put(member.name(), member.size() + " " + member.crc());
      }
    }
    return contents;
  }

  private void write(ZipArchive zip, ZipMember member) throws IOException {
    Path target = place(member.name());
    Files.createDirectories(target.getParent());
    try (InputStream in = zip.open(member)) {
      Files.copy(in, target, StandardCopyOption.REPLACE_EXISTING);
    }
  }

  private Path place(String name) throws IOException {
    Path target = folder.resolve(name).normalize();
    if (!target.startsWith(folder)) {
      throw new IOException("entry '" + name + "' points outside the archive");
    }
    return target;
  }

  /** Bytes of all files. */
  public long size() {
    return held.values().stream()
        .mapToLong(content -> Long.parseLong(content.substring(0, content.indexOf(' '))))
        .sum();
  }

  /** Digest of the content of those paths that count. */
  public String stamp(Predicate<String> counts) {
    StringBuilder all = new StringBuilder();
    held.forEach(
        (name, content) -> {
          if (counts.test(name)) {
            all.append(name).append(' ').append(content).append('\n');
          }
        });
    return Digests.of(all.toString().getBytes(StandardCharsets.UTF_8));
  }
}

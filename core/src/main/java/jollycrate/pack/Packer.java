package jollycrate.pack;

import java.io.BufferedOutputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.jar.Attributes;
import java.util.jar.Manifest;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import jollycrate.artifact.Digests;

/**
 * Packs a WAR (Jakarta Servlet 6.0, section 10.5) that depends on nothing but its input: entries
 * sorted with the manifest first, one fixed time, no owner, no order of the disk.
 */
public final class Packer {
  /** The time of every entry: the first that every archive reader shows as a day in 2000. */
  static final LocalDateTime FIXED_TIME = LocalDateTime.of(2000, 1, 1, 0, 0);

  private static final String MANIFEST = "META-INF/MANIFEST.MF";

  private Packer() {}

  /**
   * Packs beside the target and renames, so that what stood there stays until the new one is whole.
   *
   * @throws PackException when a source is missing or there is nothing to pack
   */
  public static Packed pack(PackRequest request, Path target) {
    try {
      return write(request, collect(request), target.toAbsolutePath());
    } catch (IOException e) {
      throw new PackException("Cannot pack '" + target + "': " + e);
    }
  }

  private static Contents collect(PackRequest request) throws IOException {
    Contents contents = new Contents(request.leaveOut());
    for (Path folder : request.classes()) {
      contents.addFolder(folderAt(folder, "classes"), "WEB-INF/classes/", "classes");
    }
    for (Path folder : request.web()) {
      contents.addFolder(folderAt(folder, "web"), "", "web files");
    }
    for (Path library : request.libs()) {
      contents.addFile(library, "WEB-INF/lib/" + library.getFileName(), "libraries");
    }
    if (contents.entries().isEmpty()) {
      throw new PackException(
          "Cannot pack '"
              + request.name()
              + "': there is nothing to pack. Build the project first");
    }
    return contents;
  }

  private static Path folderAt(Path folder, String key) {
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

  private static Packed write(PackRequest request, Contents contents, Path target)
      throws IOException {
    Files.createDirectories(target.getParent());
    Path beside = target.resolveSibling("." + target.getFileName() + ".part");
    try {
      List<Packed.Part> parts = writeEntries(request, contents, beside);
      String digest = Digests.of(beside);
      boolean changed = !Files.isRegularFile(target) || !Digests.of(target).equals(digest);
      if (changed) {
        Files.move(
            beside, target, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
      }
      return new Packed(
          target, Files.size(target), digest, parts, List.copyOf(contents.leftOut()), changed);
    } finally {
      Files.deleteIfExists(beside);
    }
  }

  private static List<Packed.Part> writeEntries(PackRequest request, Contents contents, Path file)
      throws IOException {
    Map<String, Packed.Part> parts = new LinkedHashMap<>();
    try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 16);
        ZipOutputStream zip = new ZipOutputStream(out, StandardCharsets.UTF_8)) {
      Contents.Entry own = contents.entries().remove(MANIFEST);
      begin(zip, MANIFEST);
      byte[] manifest = own == null ? manifest(request) : Files.readAllBytes(own.source());
      zip.write(manifest);
      count(parts, "manifest", manifest.length);
      for (Map.Entry<String, Contents.Entry> entry : contents.entries().entrySet()) {
        begin(zip, entry.getKey());
        Files.copy(entry.getValue().source(), zip);
        count(parts, entry.getValue().part(), entry.getValue().bytes());
      }
    }
    return new ArrayList<>(parts.values());
  }

  private static void begin(ZipOutputStream zip, String name) throws IOException {
    ZipEntry entry = new ZipEntry(name);
    entry.setTimeLocal(FIXED_TIME);
    zip.putNextEntry(entry);
  }

  private static void count(Map<String, Packed.Part> parts, String part, long bytes) {
    parts.merge(
        part,
        new Packed.Part(part, 1, bytes),
        (a, b) -> new Packed.Part(part, a.files() + 1, a.bytes() + b.bytes()));
  }

  private static byte[] manifest(PackRequest request) throws IOException {
    Manifest manifest = new Manifest();
    manifest.getMainAttributes().put(Attributes.Name.MANIFEST_VERSION, "1.0");
    manifest.getMainAttributes().put(Attributes.Name.IMPLEMENTATION_TITLE, request.name());
    manifest.getMainAttributes().put(Attributes.Name.IMPLEMENTATION_VERSION, request.version());
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    manifest.write(bytes);
    return bytes.toByteArray();
  }
}

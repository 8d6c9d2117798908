package jollycrate.pack;

import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.jar.Attributes;
import java.util.jar.JarFile;
import jollycrate.file.Shipped;
import jollycrate.file.Trees;

/** A folder with a JAR, its libraries and a start script, and one archive of that folder. */
final class LibrariesBeside {
  private final Packer packer;
  private final Layout layout;
  private final List<Entry> entries;
  private final Path folder;
  private final Path beside;

  LibrariesBeside(Packer packer, Layout layout, List<Entry> entries) {
    this.packer = packer;
    this.layout = layout;
    this.entries = entries;
    String name = packer.target().getFileName().toString().replaceFirst("\\.zip$", "");
    this.folder = packer.target().resolveSibling(name);
    this.beside = packer.target().resolveSibling("." + name + ".part");
  }

  Packed pack() throws IOException {
    if (Files.exists(folder, LinkOption.NOFOLLOW_LINKS) && !isOurs()) {
      throw new PackException(
          "Cannot pack into folder '"
              + folder
              + "': it holds something else than "
              + jarName()
              + ". Move it away, or name another 'to' in [pack]");
    }
    Trees.delete(beside);
    try {
      Files.createDirectories(beside.resolve("lib"));
      Path jar = beside.resolve(jarName());
      Path standing = folder.resolve(jarName());
      if (Files.isRegularFile(standing)) {
        Files.copy(standing, jar, StandardCopyOption.COPY_ATTRIBUTES);
      }
      packer.write(entries, jar);
      Path script = beside.resolve(packer.request().name());
      Files.write(script, script());
      Files.setPosixFilePermissions(script, PosixFilePermissions.fromString("rwxr-xr-x"));
      for (Library library : layout.libraries()) {
        copy(library, beside.resolve("lib").resolve(library.fileName()));
      }
      Packer.Written written = packer.write(zipped(jar, script), packer.target());
      install();
      return packer.packed(layout, told(), Optional.of(folder), written);
    } finally {
      Trees.delete(beside);
    }
  }

  private static void copy(Library library, Path place) throws IOException {
    if (!Files.exists(place)) {
      Files.copy(library.file(), place);
    } else if (Files.mismatch(library.file(), place) >= 0) {
      throw new PackException(
          "Cannot pack '"
              + library.file()
              + "': another library of that name stands in lib/ already. Rename one of them");
    }
  }

  private String jarName() {
    return packer.request().name() + ".jar";
  }

  private boolean isOurs() {
    String[] inside = folder.toFile().list();
    return inside != null
        && !Files.isSymbolicLink(folder)
        && (inside.length == 0 || Files.isRegularFile(folder.resolve(jarName())));
  }

  private byte[] script() throws IOException {
    return Shipped.text(LibrariesBeside.class, "/pack/start.sh")
        .replace("@jar@", jarName())
        .getBytes(StandardCharsets.UTF_8);
  }

  private List<Entry> zipped(Path jar, Path script) throws IOException {
    String root = folder.getFileName() + "/";
    Contents contents = new Contents();
    contents.addFile(jar, root + jarName(), "program");
    contents.add(new Entry(root + script.getFileName(), Source.OfFile.at(script), "program", true));
    for (Library library : layout.libraries()) {
      contents.addFile(library.file(), root + "lib/" + library.fileName(), "libraries");
    }
    return contents.sorted();
  }

  /** What people count: the content of the JAR, and the libraries as they are. */
  private List<Entry> told() {
    List<Entry> told = new ArrayList<>(entries);
    for (Library library : layout.libraries()) {
      told.add(
          new Entry(
              "lib/" + library.fileName(),
              new Source.OfFile(library.file(), library.size(), Optional.empty()),
              "libraries",
              false));
    }
    return told;
  }

  /**
   * Puts each file in its place, the JAR last. What else stands in the folder, like data that the
   * program wrote there, stays; libraries that the JAR named before and does not now go.
   */
  private void install() throws IOException {
    Set<String> stale = new TreeSet<>(librariesOf(folder.resolve(jarName())));
    Path libs = Files.createDirectories(folder.resolve("lib"));
    for (Library library : layout.libraries()) {
      install(beside.resolve("lib").resolve(library.fileName()), libs);
      stale.remove(library.fileName());
    }
    install(beside.resolve(packer.request().name()), folder);
    install(beside.resolve(jarName()), folder);
    for (String name : stale) {
      Files.deleteIfExists(libs.resolve(name));
    }
  }

  private static void install(Path file, Path into) throws IOException {
    Path place = into.resolve(file.getFileName());
    if (!Files.isRegularFile(place) || Files.mismatch(file, place) >= 0) {
      Packer.move(file, place);
    }
  }

  /** Names of the files in lib/ that a JAR names. */
  private static List<String> librariesOf(Path jar) throws IOException {
    if (!Files.isRegularFile(jar)) {
      return List.of();
    }
    try (JarFile file = new JarFile(jar.toFile())) {
      String path = file.getManifest().getMainAttributes().getValue(Attributes.Name.CLASS_PATH);
      return path == null
          ? List.of()
          : Arrays.stream(path.split(" "))
              .filter(url -> url.matches("lib/[^/]+"))
              .map(url -> URI.create(url).getPath().substring("lib/".length()))
              .toList();
    }
  }
}

package jollycrate.pack;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

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
    delete(beside);
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
        Files.copy(library.file(), beside.resolve("lib").resolve(library.fileName()));
      }
      Packer.Written written = packer.write(zipped(jar, script), packer.target());
      swap();
      return packer.packed(layout, told(), Optional.of(folder), written);
    } finally {
      delete(beside);
    }
  }

  private String jarName() {
    return packer.request().name() + ".jar";
  }

  private boolean isOurs() {
    return Files.isDirectory(folder, LinkOption.NOFOLLOW_LINKS)
        && Files.isRegularFile(folder.resolve(jarName()));
  }

  private byte[] script() throws IOException {
    return new String(InsideParts.text("pack/start.sh"), StandardCharsets.UTF_8)
        .replace("@jar@", jarName())
        .getBytes(StandardCharsets.UTF_8);
  }

  private List<Entry> zipped(Path jar, Path script) throws IOException {
    String root = folder.getFileName() + "/";
    Contents contents = new Contents();
    contents.addFile(jar, root + jarName(), "program");
    contents.add(
        new Entry(
            root + script.getFileName(),
            new Source.OfFile(script, Files.size(script)),
            "program",
            true));
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
              new Source.OfFile(library.file(), library.size()),
              "libraries",
              false));
    }
    return told;
  }

  private void swap() throws IOException {
    Path old = folder.resolveSibling("." + folder.getFileName() + ".old");
    delete(old);
    if (Files.exists(folder)) {
      Packer.move(folder, old);
    }
    Packer.move(beside, folder);
    delete(old);
  }

  private static void delete(Path tree) throws IOException {
    if (!Files.exists(tree, LinkOption.NOFOLLOW_LINKS)) {
      return;
    }
    try (Stream<Path> files = Files.walk(tree)) {
      for (Path file : files.sorted(java.util.Comparator.reverseOrder()).toList()) {
        Files.delete(file);
      }
    }
  }
}

package jollycrate.artifact;

import java.io.ByteArrayInputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.jar.Attributes;
import java.util.jar.Manifest;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;
import java.util.zip.ZipInputStream;

/**
 * Reads an archive without unpacking it. The archive is untrusted: sizes are bounded and nothing of
 * it is executed or written.
 */
public final class ArtifactReader {
  /** Archives with more files than this are refused. */
  public static final int MOST_ENTRIES = 500_000;

  private static final int MOST_CLASS_BYTES = 16 << 20;
  private static final long INFLATION_FLOOR = 1L << 30;
  private static final int INFLATION_FACTOR = 100;
  private static final Pattern NAME_WITH_VERSION =
      Pattern.compile("(.+?)-(\\d[\\w.+-]*)", Pattern.UNICODE_CHARACTER_CLASS);

  private final Path file;
  private final WebDescriptors descriptors = new WebDescriptors();
  private final List<String> faults = new ArrayList<>();
  private final SortedSet<String> ownPackages = new TreeSet<>();
  private int entries;
  private long inflatedLeft;
  private int highestLevel;
  private String highestClass = "";
  private boolean javax;
  private boolean jakarta;
  private boolean webInf;
  private boolean anyClass;
  private boolean enterprise;
  private Attributes manifest = new Attributes();
  private Optional<String> contextXml = Optional.empty();

  private ArtifactReader(Path file) {
    this.file = file;
  }

  /**
   * Reads an archive.
   *
   * @throws ArtifactException when there is no such file or it is no readable archive
   */
  public static Artifact read(Path file) {
    if (!Files.isRegularFile(file)) {
      String reason = Files.isDirectory(file) ? "it is a folder" : "there is no such file";
      throw new ArtifactException("Cannot read '" + file + "': " + reason);
    }
    try {
      return new ArtifactReader(file).read();
    } catch (IOException | IllegalArgumentException e) {
      throw new ArtifactException(
          "Cannot read '" + file + "' as an archive: " + reasonOf(e) + ". Build or copy it again");
    }
  }

  private static String reasonOf(Exception e) {
    return e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
  }

  private Artifact read() throws IOException {
    long size = Files.size(file);
    inflatedLeft = Math.max(INFLATION_FLOOR, size * INFLATION_FACTOR);
    try (ZipFile zip = new ZipFile(file.toFile())) {
      for (ZipEntry entry : Collections.list(zip.entries())) {
        if (!entry.isDirectory()) {
          visit(zip, entry);
        }
      }
    }
    String base = baseName();
    Matcher versioned = NAME_WITH_VERSION.matcher(base);
    boolean matches = versioned.matches();
    return new Artifact(
        file,
        kind(),
        size,
        entries,
        Digests.of(file),
        stated("Implementation-Title").orElse(matches ? versioned.group(1) : base),
        stated("Implementation-Version").orElse(matches ? versioned.group(2) : ""),
        highestLevel,
        highestClass,
        ServletNamespace.of(javax, jakarta),
        stated("Main-Class"),
        descriptors.dataSources(),
        descriptors.roles(),
        ownPackages,
        contextXml,
        List.copyOf(faults));
  }

  private String baseName() {
    String name = file.getFileName().toString();
    int dot = name.lastIndexOf('.');
    return dot <= 0 ? name : name.substring(0, dot);
  }

  private Optional<String> stated(String attribute) {
    return Optional.ofNullable(manifest.getValue(attribute))
        .map(String::strip)
        .filter(value -> !value.isEmpty());
  }

  private ArtifactKind kind() {
    boolean main = stated("Main-Class").isPresent();
    boolean named = file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".war");
    if (webInf || named) {
      return main ? ArtifactKind.EXECUTABLE_WAR : ArtifactKind.WAR;
    }
    if (enterprise) {
      return ArtifactKind.EAR;
    }
    if (main) {
      return ArtifactKind.EXECUTABLE_JAR;
    }
    return anyClass ? ArtifactKind.LIBRARY_JAR : ArtifactKind.ARCHIVE;
  }

  private void visit(ZipFile zip, ZipEntry entry) throws IOException {
    String name = entry.getName();
    if (++entries > MOST_ENTRIES) {
      throw new IOException("it has more than " + MOST_ENTRIES + " entries");
    }
    if (escapes(name)) {
      faults.add("entry '" + name + "' points outside the archive");
      return;
    }
    webInf = webInf || name.startsWith("WEB-INF/");
    if (name.endsWith(".class")) {
      visitClass(name, read(zip, entry, MOST_CLASS_BYTES), true);
    } else if (name.startsWith("WEB-INF/lib/") && name.endsWith(".jar")) {
      visitLibrary(zip, entry);
    } else {
      visitDescriptor(zip, entry);
    }
  }

  private void visitDescriptor(ZipFile zip, ZipEntry entry) throws IOException {
    String name = entry.getName();
    try {
      switch (name) {
        case "META-INF/MANIFEST.MF" ->
            manifest =
                new Manifest(new ByteArrayInputStream(descriptor(zip, entry))).getMainAttributes();
        case "META-INF/application.xml" -> enterprise = true;
        case "META-INF/context.xml" -> readContextXml(descriptor(zip, entry));
        case "WEB-INF/web.xml" -> descriptors.readWebXml(name, descriptor(zip, entry));
        case "WEB-INF/classes/META-INF/persistence.xml" ->
            descriptors.readPersistenceXml(name, descriptor(zip, entry));
        default -> {
          return;
        }
      }
    } catch (XmlException e) {
      faults.add(e.getMessage());
    }
  }

  private void readContextXml(byte[] bytes) {
    XmlDocument document = XmlDocument.parse("META-INF/context.xml", bytes);
    contextXml = Optional.of(document.text());
  }

  private void visitLibrary(ZipFile zip, ZipEntry library) {
    try (ZipInputStream jar = new ZipInputStream(bounded(zip.getInputStream(library)))) {
      int inside = 0;
      for (ZipEntry entry = jar.getNextEntry(); entry != null; entry = jar.getNextEntry()) {
        inside++;
        String name = entry.getName();
        if (name.endsWith(".class") && !name.startsWith("META-INF/versions/")) {
          byte[] bytes = jar.readNBytes(MOST_CLASS_BYTES);
          visitClass(library.getName() + "!/" + name, bytes, false);
        }
      }
      if (inside == 0) {
        faults.add("library '" + library.getName() + "' is no readable archive");
      }
    } catch (IOException | IllegalArgumentException e) {
      faults.add("library '" + library.getName() + "' cannot be read: " + reasonOf(e));
    }
  }

  private void visitClass(String name, byte[] bytes, boolean own) {
    String simple = name.substring(name.lastIndexOf('/') + 1);
    if (name.startsWith("META-INF/versions/") || simple.equals("module-info.class")) {
      return;
    }
    Optional<ClassFile> read = ClassFile.read(bytes);
    if (read.isEmpty()) {
      faults.add("'" + name + "' is no class file");
      return;
    }
    ClassFile head = read.get();
    anyClass = true;
    if (head.major() > highestLevel) {
      highestLevel = head.major();
      highestClass = name;
    }
    if (own) {
      javax = javax || head.javax();
      jakarta = jakarta || head.jakarta();
      ownPackages.add(packageOf(name));
    }
    if (head.resource()) {
      ResourceAnnotations.dataSources(bytes).forEach(jndi -> descriptors.declare(jndi, name));
    }
  }

  private static String packageOf(String entry) {
    String inside = entry.replaceFirst("^(WEB-INF|BOOT-INF)/classes/", "");
    int slash = inside.lastIndexOf('/');
    return slash < 0 ? "" : inside.substring(0, slash).replace('/', '.');
  }

  private static boolean escapes(String name) {
    return name.startsWith("/")
        || name.contains("\\")
        || name.contains(":")
        || name.equals("..")
        || name.startsWith("../")
        || name.contains("/../")
        || name.endsWith("/..");
  }

  private byte[] descriptor(ZipFile zip, ZipEntry entry) throws IOException {
    return read(zip, entry, XmlDocument.MOST_BYTES);
  }

  private byte[] read(ZipFile zip, ZipEntry entry, int most) throws IOException {
    try (InputStream in = bounded(zip.getInputStream(entry))) {
      byte[] bytes = in.readNBytes(most + 1);
      if (bytes.length > most) {
        throw new IOException("entry '" + entry.getName() + "' is larger than " + most + " bytes");
      }
      return bytes;
    }
  }

  private InputStream bounded(InputStream in) {
    return new FilterInputStream(in) {
      @Override
      public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
      }

      @Override
      public int read(byte[] into, int from, int most) throws IOException {
        int read = in.read(into, from, most);
        inflatedLeft -= Math.max(0, read);
        if (inflatedLeft < 0) {
          throw new IOException("it inflates to an unreasonable size");
        }
        return read;
      }
    };
  }

  /** The text of an entry in an archive, when there is such an entry. */
  public static Optional<String> text(Path archive, String entryName) throws IOException {
    try (ZipFile zip = new ZipFile(archive.toFile())) {
      ZipEntry entry = zip.getEntry(entryName);
      if (entry == null) {
        return Optional.empty();
      }
      try (InputStream in = zip.getInputStream(entry)) {
        return Optional.of(
            new String(in.readNBytes(XmlDocument.MOST_BYTES), StandardCharsets.UTF_8));
      }
    }
  }
}

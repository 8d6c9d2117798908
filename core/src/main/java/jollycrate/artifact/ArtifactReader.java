package jollycrate.artifact;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.SortedMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.jar.Attributes;
import java.util.jar.Manifest;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.zip.ZipException;
import jollycrate.file.Digests;
import jollycrate.file.IoReason;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlException;
import jollycrate.xml.XmlText;

/**
 * Reads an archive without unpacking it. The archive is untrusted: sizes are bounded and nothing of
 * it is executed or written.
 */
public final class ArtifactReader {
  /** Archives with more files than this are refused. */
  public static final int MOST_ENTRIES = 500_000;

  private static final long INFLATION_FLOOR = 1L << 30;
  private static final int INFLATION_FACTOR = 100;
  private static final Pattern NAME_WITH_VERSION =
      Pattern.compile("(.+?)-(\\d[\\w.+-]*)", Pattern.UNICODE_CHARACTER_CLASS);
  private static final Pattern LIBRARY =
      Pattern.compile(".*\\.(jar|war|rar)", Pattern.CASE_INSENSITIVE);
  private static final Pattern LIBRARY_FOLDER =
      Pattern.compile("((BOOT|META|WEB)-INF/)?libs?/[^/]+\\.jar");
  private static final CompletableFuture<String> NO_DIGEST = CompletableFuture.completedFuture("");
  private static final int MOST_MODULE_BYTES = 512 << 20;
  static final String MANIFEST = "META-INF/MANIFEST.MF";

  private final Path file;
  private final ZipArchive archive;
  private final WebDescriptors descriptors = new WebDescriptors();
  private final List<String> faults = new ArrayList<>();
  private final List<Artifact.Library> libraries = new ArrayList<>();
  private final boolean webInf;
  private final ClassLevels classes = new ClassLevels();
  private final List<ZipMember> ownClasses = new ArrayList<>();
  private final List<ZipMember> inside = new ArrayList<>();
  private Attributes manifest = new Attributes();
  private Optional<XmlText> contextXml = Optional.empty();
  private List<String> modules = List.of();
  private ServletApi servlets = ServletApi.NONE;
  private SortedMap<String, String> absent = Collections.emptySortedMap();
  private Optional<String> program = Optional.empty();
  private boolean enterprise;
  private int entries;
  private long inflatedLeft;

  private ArtifactReader(Path file, ZipArchive archive) {
    this.file = file;
    this.archive = archive;
    this.webInf = archive.members().stream().anyMatch(m -> m.name().startsWith("WEB-INF/"));
  }

  /** Reads an archive and digests it. */
  public static Artifact read(Path file) {
    return read(file, true);
  }

  /**
   * Reads an archive.
   *
   * @param withDigest whether the whole file is digested too, which takes longer than the rest
   * @throws ArtifactException when there is no such file or it is no readable archive
   */
  public static Artifact read(Path file, boolean withDigest) {
    if (!Files.isRegularFile(file)) {
      String reason = Files.isDirectory(file) ? "it is a folder" : "there is no such file";
      throw new ArtifactException("Cannot read '" + file + "': " + reason);
    }
    CompletableFuture<String> digest =
        withDigest ? CompletableFuture.supplyAsync(() -> digest(file)) : NO_DIGEST;
    try (ZipArchive archive = ZipArchive.open(file)) {
      return new ArtifactReader(file, archive).read(digest);
    } catch (IOException | IllegalArgumentException | CompletionException e) {
      throw new ArtifactException(
          "Cannot read '"
              + file
              + "' as an archive: "
              + IoReason.of(e)
              + ". Build or copy it again");
    }
  }

  private static String digest(Path file) {
    try {
      return Digests.of(file);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private Artifact read(CompletableFuture<String> digest) throws IOException {
    long size = archive.size();
    inflatedLeft = Math.max(INFLATION_FLOOR, size * INFLATION_FACTOR);
    for (ZipMember member : archive.members()) {
      if (!member.isFolder()) {
        visit(member);
      }
    }
    readClasses();
    String base = baseName();
    Matcher versioned = NAME_WITH_VERSION.matcher(base);
    boolean matches = versioned.matches();
    startIsThere();
    return new Artifact(
        file,
        kind(),
        size,
        entries,
        digest.join(),
        stated("Implementation-Title").orElse(matches ? versioned.group(1) : base),
        stated("Implementation-Version").orElse(matches ? versioned.group(2) : ""),
        new Artifact.Classes(
            classes.highest(),
            classes.highestClass(),
            classes.ownPackages(),
            isWar() ? classes.missing() : Collections.emptySortedMap(),
            absent),
        new Artifact.Start(stated("Main-Class").or(() -> program), stated("Start-Class")),
        new Artifact.Web(
            servlets,
            descriptors.endpoints(),
            descriptors.dataSources(),
            descriptors.resources(),
            descriptors.entries(),
            descriptors.roles(),
            descriptors.guarded(),
            contextXml),
        layout(),
        List.copyOf(faults));
  }

  private Artifact.Layout layout() throws IOException {
    byte[] start = archive.beginning(2);
    boolean script = start.length == 2 && start[0] == '#' && start[1] == '!';
    return new Artifact.Layout(
        List.copyOf(libraries),
        stated("Class-Path").map(path -> Arrays.asList(path.split("\\s+"))).orElse(List.of()),
        modules,
        stated("Multi-Release").filter(value -> value.equalsIgnoreCase("true")).isPresent(),
        script ? archive.leading() : 0);
  }

  /** A main class may stand in a library only if the manifest names libraries beside the file. */
  private void startIsThere() {
    Optional<String> main = stated("Main-Class");
    if (main.isPresent()
        && stated("Class-Path").isEmpty()
        && archive.member(main.get().replace('.', '/') + ".class").isEmpty()) {
      faults.add(MANIFEST + ": there is no main class '" + main.get() + "' inside");
    }
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

  private boolean isWar() {
    return webInf || file.getFileName().toString().toLowerCase(Locale.ROOT).endsWith(".war");
  }

  private ArtifactKind kind() {
    boolean main = stated("Main-Class").isPresent();
    if (isWar()) {
      return main ? ArtifactKind.EXECUTABLE_WAR : ArtifactKind.WAR;
    }
    if (enterprise) {
      return ArtifactKind.EAR;
    }
    if (main) {
      return ArtifactKind.EXECUTABLE_JAR;
    }
    if (program.isPresent()) {
      return ArtifactKind.PROGRAM_ARCHIVE;
    }
    return ownClasses.isEmpty() ? ArtifactKind.ARCHIVE : ArtifactKind.LIBRARY_JAR;
  }

  private void visit(ZipMember member) throws IOException {
    String name = member.name();
    if (++entries > MOST_ENTRIES) {
      throw new ZipException("it has more than " + MOST_ENTRIES + " entries");
    }
    inflatedLeft -= member.size();
    if (inflatedLeft < 0) {
      throw new ZipException("it inflates to an unreasonable size");
    }
    if (member.escapes()) {
      faults.add("entry '" + name + "' points outside the archive");
    } else if (name.endsWith(".class")) {
      visitClass(member);
    } else if (LIBRARY.matcher(name).matches()) {
      libraries.add(new Artifact.Library(name, member.size(), member.method() == ZipMember.STORED));
      inside.add(member);
    } else {
      visitDescriptor(member);
    }
  }

  private void visitClass(ZipMember member) {
    if (!isWar() || member.name().startsWith("WEB-INF/classes/")) {
      ownClasses.add(member);
    } else {
      classes.exists();
    }
  }

  private void readClasses() throws IOException {
    enterprise = enterprise || file.getFileName().toString().endsWith(".ear");
    List<ZipMember> loaded = inside.stream().filter(this::isLoaded).toList();
    ClassReading reading = new ClassReading(archive, !isWar() && !enterprise);
    classes.add(reading.read(ownClasses, loaded));
    program = reading.program();
    for (ClassReading.Fragment fragment : reading.fragments()) {
      readFragment(fragment);
    }
    classes.dataSources().forEach(source -> descriptors.declare(source.name(), source.where()));
    classes.servlets().forEach(descriptors::mapped);
    faults.addAll(classes.faults());
    try (ServletUse use = new ServletUse(archive, reading.libraryOf())) {
      absent = isWar() ? use.absent(descriptors.components()) : Collections.emptySortedMap();
      servlets = use.api(classes.servletUse(), descriptors.components(), reading.initializers());
    }
    if (enterprise) {
      readWebModules(loaded);
    }
  }

  /** The servlets of an EAR are those of its web modules. */
  private void readWebModules(List<ZipMember> loaded) throws IOException {
    List<ServletApi.Use> uses = new ArrayList<>(servlets.uses());
    for (ZipMember member : loaded) {
      if (member.name().endsWith(".war")) {
        try (ZipArchive web = archive.inside(member, MOST_MODULE_BYTES)) {
          Artifact module = new ArtifactReader(Path.of(member.name()), web).read(NO_DIGEST);
          module.web().servlets().uses().stream()
              .map(
                  use ->
                      new ServletApi.Use(
                          use.namespace(), member.name() + "!/" + use.seen(), use.started()))
              .forEach(uses::add);
          descriptors.declaredBy(member.name(), module.web());
        } catch (ZipException e) {
          faults.add("module '" + member.name() + "' cannot be read: " + e.getMessage());
        }
      }
    }
    servlets = new ServletApi(List.copyOf(uses));
  }

  private void readFragment(ClassReading.Fragment fragment) {
    try {
      descriptors.readFragment(fragment.name(), fragment.bytes());
    } catch (XmlException e) {
      faults.add(e.getMessage());
    }
  }

  private void visitDescriptor(ZipMember member) throws IOException {
    String name = member.name();
    try {
      switch (name) {
        case MANIFEST ->
            manifest =
                new Manifest(new ByteArrayInputStream(descriptor(member))).getMainAttributes();
        case "META-INF/application.xml" -> {
          enterprise = true;
          modules = WebDescriptors.modules(name, descriptor(member));
        }
        case "META-INF/context.xml" ->
            contextXml = Optional.of(XmlDocument.parse(name, descriptor(member)).written());
        case "WEB-INF/web.xml" -> descriptors.readWebXml(name, descriptor(member));
        case "WEB-INF/classes/META-INF/persistence.xml" ->
            descriptors.readPersistenceXml(name, descriptor(member));
        default -> {
          return;
        }
      }
    } catch (XmlException e) {
      faults.add(e.getMessage());
    }
  }

  /** What nobody loads, nobody stumbles over: a template among resources is no library. */
  private boolean isLoaded(ZipMember library) {
    if (isWar()) {
      return library.name().matches("WEB-INF/lib/[^/]+\\.jar");
    }
    return enterprise || ownClasses.isEmpty() || LIBRARY_FOLDER.matcher(library.name()).matches();
  }

  private byte[] descriptor(ZipMember member) throws IOException {
    return archive.read(member, XmlDocument.MOST_BYTES);
  }

  /** Classes of the JDBC drivers that an archive announces ({@link java.util.ServiceLoader}). */
  public static List<String> drivers(Path archive) throws IOException {
    return text(archive, "META-INF/services/java.sql.Driver")
        .orElse("")
        .lines()
        .map(line -> line.replaceFirst("#.*", "").strip())
        .filter(line -> !line.isEmpty())
        .toList();
  }

  private static Optional<String> text(Path archive, String entryName) throws IOException {
    try (ZipArchive zip = ZipArchive.open(archive)) {
      Optional<ZipMember> member = zip.member(entryName);
      return member.isEmpty()
          ? Optional.empty()
          : Optional.of(
              new String(zip.read(member.get(), XmlDocument.MOST_BYTES), StandardCharsets.UTF_8));
    }
  }
}

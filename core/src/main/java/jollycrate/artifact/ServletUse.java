package jollycrate.artifact;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import org.objectweb.asm.ClassReader;

/**
 * Finds out which servlet API a web application is made for: by its own classes, by the servlets,
 * filters and listeners that descriptors name, wherever these stand, and when nothing of that
 * tells, by what its libraries want to be started (Jakarta Servlet 6.0, sections 8.2.2 and 8.2.4).
 */
final class ServletUse implements AutoCloseable {
  private static final String OWN = "WEB-INF/classes/";
  private static final String CLASS = ".class";
  private static final String SERVICE = "META-INF/services/%s.servlet.ServletContainerInitializer";
  private static final Map<ServletNamespace, String> SERVICES =
      Map.of(
          ServletNamespace.JAVAX, SERVICE.formatted("javax"),
          ServletNamespace.JAKARTA, SERVICE.formatted("jakarta"));
  private static final int MOST_ANCESTORS = 12;
  private static final int MOST_CLASS_BYTES = 16 << 20;
  private static final int MOST_LIBRARY_BYTES = 512 << 20;

  private final ZipArchive archive;
  private final Map<String, ZipMember> libraryOf;
  private final Map<ZipMember, ZipArchive> opened = new HashMap<>();

  /**
   * @param libraryOf the library in which a class stands, by the name of its entry there
   */
  ServletUse(ZipArchive archive, Map<String, ZipMember> libraryOf) {
    this.archive = archive;
    this.libraryOf = libraryOf;
  }

  /** The service that starts an application without a descriptor, if an entry is one. */
  static Optional<ServletNamespace> initializer(String entry) {
    return SERVICES.entrySet().stream()
        .filter(service -> service.getValue().equals(entry))
        .map(Map.Entry::getKey)
        .findFirst();
  }

  /** Logging looks for its context if it can, and does without. */
  static boolean startsTheApplication(String provider) {
    return !provider.contains("logback") && !provider.contains("log4j");
  }

  /**
   * Puts together what was seen.
   *
   * @param own of the application's own classes, each namespace with one that shows it
   * @param components that descriptors name
   * @param initializers of libraries, by the entry that names them
   */
  ServletApi api(
      Map<ServletNamespace, String> own,
      List<WebDescriptors.Component> components,
      SortedMap<String, ServletNamespace> initializers)
      throws IOException {
    List<ServletApi.Use> uses = new ArrayList<>();
    for (WebDescriptors.Component component : components) {
      declared(component).ifPresent(uses::add);
    }
    own.forEach((namespace, entry) -> uses.add(new ServletApi.Use(namespace, entry, false)));
    if (uses.isEmpty()) {
      initializers.forEach(
          (entry, namespace) -> uses.add(new ServletApi.Use(namespace, entry, false)));
    }
    return new ServletApi(List.copyOf(uses));
  }

  /** Components whose class nothing inside holds, each with where it is named. */
  SortedMap<String, String> absent(List<WebDescriptors.Component> components) {
    SortedMap<String, String> absent = new TreeMap<>();
    for (WebDescriptors.Component component : components) {
      String entry = component.className().replace('.', '/') + CLASS;
      if (!libraryOf.containsKey(entry) && archive.member(OWN + entry).isEmpty()) {
        absent.putIfAbsent(component.className(), component.where());
      }
    }
    return absent;
  }

  /** What a named class, or the first of its ancestors that tells, refers to. */
  private Optional<ServletApi.Use> declared(WebDescriptors.Component component) throws IOException {
    String name = component.className().replace('.', '/');
    for (int generation = 0; generation < MOST_ANCESTORS; generation++) {
      Optional<Found> found = find(name);
      if (found.isEmpty()) {
        return Optional.empty();
      }
      Optional<ClassFile> tells = ClassFile.read(found.get().bytes());
      ServletNamespace namespace =
          tells.map(t -> ServletNamespace.of(t.javax(), t.jakarta())).orElse(ServletNamespace.NONE);
      if (namespace != ServletNamespace.NONE) {
        String seen = component.where() + ": " + component.className() + found.get().place();
        return namespace == ServletNamespace.BOTH
            ? Optional.empty()
            : Optional.of(new ServletApi.Use(namespace, seen, true));
      }
      name = tells.isEmpty() ? "" : parentOf(found.get().bytes());
    }
    return Optional.empty();
  }

  private static String parentOf(byte[] classFile) {
    try {
      String parent = new ClassReader(classFile).getSuperName();
      return parent == null ? "" : parent;
    } catch (IllegalArgumentException | IndexOutOfBoundsException unknownVersion) {
      return "";
    }
  }

  /** A class of the archive. */
  private record Found(byte[] bytes, String place) {}

  private Optional<Found> find(String name) throws IOException {
    String entry = name + CLASS;
    Optional<ZipMember> own = archive.member(OWN + entry);
    if (own.isPresent()) {
      return Optional.of(new Found(archive.read(own.get(), MOST_CLASS_BYTES), ""));
    }
    ZipMember library = libraryOf.get(entry);
    if (library == null) {
      return Optional.empty();
    }
    ZipArchive inside = opened.get(library);
    if (inside == null) {
      inside = archive.inside(library, MOST_LIBRARY_BYTES);
      opened.put(library, inside);
    }
    ZipMember member = inside.member(entry).orElseThrow();
    return Optional.of(new Found(inside.read(member, MOST_CLASS_BYTES), " in " + library.name()));
  }

  @Override
  public void close() throws IOException {
    for (ZipArchive library : opened.values()) {
      library.close();
    }
  }
}

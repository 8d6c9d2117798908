package jollycrate.artifact;

import java.io.IOException;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedMap;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import java.util.zip.Inflater;
import org.objectweb.asm.ClassReader;

/**
 * What the classes of an artifact need. Own classes are read whole, of classes in libraries only
 * their first bytes. Classes for single Java versions and module descriptors raise no level.
 */
final class ClassLevels {
  private static final int HEAD = 8;

  private final List<String> faults = new ArrayList<>();
  private final List<Artifact.Declared> dataSources = new ArrayList<>();
  private final List<Artifact.Endpoint> servlets = new ArrayList<>();
  private final SortedSet<String> ownPackages = new TreeSet<>();
  private final Inflater inflater = new Inflater(true);
  private int highest;
  private String highestClass = "";
  private final Map<ServletNamespace, String> servletUse = new EnumMap<>(ServletNamespace.class);
  private final SortedMap<String, String> needed = new TreeMap<>();
  private final Set<String> brought = new TreeSet<>();
  private boolean any;

  /** Adds what was learnt of further classes. */
  void add(ClassLevels more) {
    faults.addAll(more.faults);
    dataSources.addAll(more.dataSources);
    servlets.addAll(more.servlets);
    ownPackages.addAll(more.ownPackages);
    more.servletUse.forEach(servletUse::putIfAbsent);
    more.needed.forEach(needed::putIfAbsent);
    brought.addAll(more.brought);
    any |= more.any;
    if (more.highest > highest) {
      highest = more.highest;
      highestClass = more.highestClass;
    }
  }

  void fault(String fault) {
    faults.add(fault);
  }

  void exists() {
    any = true;
  }

  private static boolean isPlain(String name) {
    return !name.startsWith("META-INF/versions/")
        && !name.endsWith("/module-info.class")
        && !name.equals("module-info.class");
  }

  void visitOwn(String name, byte[] bytes) {
    if (!isPlain(name)) {
      return;
    }
    Optional<ClassFile> read = ClassFile.read(bytes);
    if (read.isEmpty()) {
      faults.add("'" + name + "' is no class file");
      return;
    }
    ClassFile head = read.get();
    level(name, head.major());
    if (head.javax()) {
      servletUse.putIfAbsent(ServletNamespace.JAVAX, name);
    }
    if (head.jakarta()) {
      servletUse.putIfAbsent(ServletNamespace.JAKARTA, name);
    }
    head.needed().stream()
        .filter(one -> ClassFile.REMOVED.contains(one) || descends(bytes, one))
        .forEach(one -> needed.putIfAbsent(one, name));
    brings(name);
    ownPackages.add(packageOf(name));
    if (head.resource()) {
      ResourceAnnotations.dataSources(bytes)
          .forEach(jndi -> dataSources.add(new Artifact.Declared(jndi, name)));
    }
    if (head.servlet()) {
      String servlet = (packageOf(name) + "." + simple(name)).replaceFirst("^\\.", "");
      ServletAnnotations.patterns(bytes)
          .forEach(pattern -> servlets.add(new Artifact.Endpoint(pattern, servlet, name)));
    }
  }

  /**
   * Whether a class cannot even be loaded without a package. One that only uses it may be there for
   * a program that is started in another way.
   */
  private static boolean descends(byte[] bytes, String needed) {
    try {
      ClassReader reader = new ClassReader(bytes);
      return Stream.concat(
              Stream.of(reader.getInterfaces()), Stream.ofNullable(reader.getSuperName()))
          .anyMatch(above -> above.startsWith(needed));
    } catch (IllegalArgumentException | IndexOutOfBoundsException unknownVersion) {
      return false;
    }
  }

  void visitHead(String library, ZipArchive archive, ZipMember member) throws IOException {
    if (isPlain(member.name())) {
      String name = library + "!/" + member.name();
      int major = ClassFile.majorOf(archive.head(member, HEAD, inflater));
      if (major == 0) {
        faults.add("'" + name + "' is no class file");
      } else {
        level(name, major);
      }
    }
  }

  private void level(String name, int major) {
    any = true;
    if (major > highest) {
      highest = major;
      highestClass = name;
    }
  }

  private static String simple(String entry) {
    return entry.substring(entry.lastIndexOf('/') + 1).replaceFirst("\\.class$", "");
  }

  private static String packageOf(String entry) {
    String inside = entry.replaceFirst("^(WEB-INF|BOOT-INF)/classes/", "");
    int slash = inside.lastIndexOf('/');
    return slash < 0 ? "" : inside.substring(0, slash).replace('/', '.');
  }

  List<String> faults() {
    return faults;
  }

  /** Data sources that annotations ask for. */
  List<Artifact.Declared> dataSources() {
    return dataSources;
  }

  /** Endpoints that annotations map. */
  List<Artifact.Endpoint> servlets() {
    return servlets;
  }

  /** Frees what reading took. */
  void end() {
    inflater.end();
  }

  boolean any() {
    return any;
  }

  int highest() {
    return highest;
  }

  String highestClass() {
    return highestClass;
  }

  /** Notes a class of a package that others may need. */
  void brings(String entry) {
    ClassFile.packages().filter(entry::contains).forEach(brought::add);
  }

  /** The servlet APIs that own classes refer to, each with an entry that does. */
  Map<ServletNamespace, String> servletUse() {
    return servletUse;
  }

  /**
   * Packages that Java has no longer, or that are a server's own, and nothing inside brings, with
   * an own class that needs it.
   */
  SortedMap<String, String> missing() {
    SortedMap<String, String> missing = new TreeMap<>(needed);
    missing.keySet().removeAll(brought);
    return missing;
  }

  SortedSet<String> ownPackages() {
    return ownPackages;
  }
}

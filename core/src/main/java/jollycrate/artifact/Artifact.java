package jollycrate.artifact;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.SortedMap;
import java.util.SortedSet;
import jollycrate.xml.XmlText;

/**
 * What an archive tells about itself.
 *
 * @param size in bytes
 * @param entries number of files inside, folders not counted
 * @param digest SHA-256 of the whole file; empty when it was not asked for
 * @param name from the manifest, else from the file's name
 * @param version from the manifest, else from the file's name, else empty
 * @param layout how it is built up
 * @param faults what is wrong inside, each with its place
 */
public record Artifact(
    Path file,
    ArtifactKind kind,
    long size,
    int entries,
    String digest,
    String name,
    String version,
    @JsonUnwrapped Classes classes,
    @JsonUnwrapped Start start,
    @JsonUnwrapped Web web,
    Layout layout,
    List<String> faults) {
  /** What names in an application's own environment begin with (Jakarta EE 10, section 5.2.2). */
  public static final String ENVIRONMENT = "java:comp/env/";

  /**
   * Its classes.
   *
   * @param highestLevel highest class-file major version that the servlet container would load; 0
   *     without classes
   * @param highestClass the entry that has it; empty without classes
   * @param ownPackages packages of its own classes, as in stack traces
   * @param missing packages that nothing inside brings: those that Java has had until release 10,
   *     each with an own class that refers to it, and those of a server's own classes, each with an
   *     own class that descends from one of them
   * @param absent servlets, filters and listeners that descriptors name and nothing inside holds,
   *     each with where it is named
   */
  public record Classes(
      int highestLevel,
      String highestClass,
      SortedSet<String> ownPackages,
      SortedMap<String, String> missing,
      SortedMap<String, String> absent) {
    /** Whether a package of {@link #missing} is a server's own, and not one of an older Java. */
    public static boolean isOfServers(String missing) {
      return ClassFile.OF_SERVERS.contains(missing);
    }

    /** The oldest Java that runs every class of it; 0 without classes. */
    public int java() {
      return highestLevel == 0 ? 0 : JavaLevel.javaOf(highestLevel);
    }

    /** The same as people call it. */
    public String javaLabel() {
      int java = java();
      return java > 0 && java < 5 ? "1." + java : String.valueOf(java);
    }
  }

  /**
   * How it starts as a program.
   *
   * @param mainClass {@code Main-Class} of the manifest
   * @param startClass class that a framework's own launcher goes on to, {@code Start-Class} of the
   *     manifest
   */
  public record Start(Optional<String> mainClass, Optional<String> startClass) {}

  /**
   * What it declares to a servlet container.
   *
   * @param servlets the servlet API it is made for
   * @param endpoints what answers, as far as servlets are declared
   * @param dataSources JNDI names of data sources it declares, below {@code java:comp/env/}
   * @param resources other resources that it declares
   * @param envEntries environment entries it declares
   * @param roles security roles it declares
   * @param guarded paths that only some may see
   * @param contextXml its {@code META-INF/context.xml}, empty when there is none
   */
  public record Web(
      ServletApi servlets,
      List<Endpoint> endpoints,
      List<Declared> dataSources,
      List<Resource> resources,
      List<DeclaredEntry> envEntries,
      SortedSet<String> roles,
      List<Guarded> guarded,
      Optional<XmlText> contextXml) {
    /** The namespaces of the servlet API it uses. */
    public ServletNamespace namespace() {
      return servlets.namespace();
    }
  }

  /**
   * A name that the artifact declares.
   *
   * @param where entry, with line when it is a descriptor
   */
  public record Declared(String name, String where) {
    /** A name without what those of the application's own environment begin with. */
    public static String ownName(String name) {
      return name.startsWith(ENVIRONMENT) ? name.substring(ENVIRONMENT.length()) : name;
    }
  }

  /**
   * A resource that the artifact declares and that is no data source.
   *
   * @param name below {@code java:comp/env/}
   * @param type its class, like {@code jakarta.mail.Session}
   * @param where entry with line
   */
  public record Resource(String name, String type, String where) {}

  /**
   * An environment entry that the artifact declares.
   *
   * @param name below {@code java:comp/env/}
   * @param type class of its value; empty when it is not said
   * @param valued whether a value stands beside it
   * @param where entry with line
   */
  public record DeclaredEntry(String name, String type, boolean valued, String where) {}

  /**
   * How an archive is built up.
   *
   * @param libraries archives inside, by path
   * @param beside archives that it expects beside it, from {@code Class-Path}
   * @param modules modules of an EAR, with the context path of web modules
   * @param multiRelease holds code for single Java versions
   * @param script bytes of a script before the archive, 0 when it has none
   */
  public record Layout(
      List<Library> libraries,
      List<String> beside,
      List<String> modules,
      boolean multiRelease,
      long script) {
    /** Nothing but files. */
    public static final Layout PLAIN = new Layout(List.of(), List.of(), List.of(), false, 0);
  }

  /**
   * An archive inside.
   *
   * @param size in bytes, as it would stand on a disk
   * @param stored whether it is not compressed once more
   */
  public record Library(String path, long size, boolean stored) {}

  /**
   * Paths that only users with a role may see, by a security constraint (Jakarta Servlet 6.0,
   * section 13.8).
   *
   * @param patterns URL patterns
   * @param roles who may; empty: nobody
   * @param where entry with line
   */
  public record Guarded(List<String> patterns, List<String> roles, String where) {}

  /**
   * A path that a servlet answers at.
   *
   * @param pattern URL pattern (Jakarta Servlet 6.0, section 12.2)
   * @param servlet class or page behind it
   * @param where entry, with line when it is a descriptor
   */
  public record Endpoint(String pattern, String servlet, String where) {}
}

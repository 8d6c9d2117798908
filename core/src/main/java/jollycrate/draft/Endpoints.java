package jollycrate.draft;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ZipArchive;
import jollycrate.artifact.ZipMember;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** Paths of which it is sure that somebody who opens them gets an answer. */
final class Endpoints {
  private static final Set<String> FIRST_PAGES = Set.of("index.html", "index.htm", "index.jsp");
  private static final int MOST_BYTES = 4 << 20;

  private Endpoints() {}

  /** The first page, and servlets at one exact path that answer GET and are open to everybody. */
  static List<Artifact.Endpoint> sure(Artifact artifact) {
    try (ZipArchive archive = ZipArchive.open(artifact.file())) {
      Set<String> closed = closed(archive).keySet();
      Stream<Artifact.Endpoint> pages =
          archive.members().stream()
              .map(ZipMember::name)
              .filter(FIRST_PAGES::contains)
              .limit(1)
              .map(name -> new Artifact.Endpoint("/", name, name));
      Stream<Artifact.Endpoint> servlets =
          artifact.web().endpoints().stream()
              .filter(endpoint -> endpoint.pattern().matches("|/[^*{}]+"))
              .filter(endpoint -> answersGet(archive, endpoint))
              .map(Endpoints::asPath);
      return Stream.concat(pages, servlets)
          .filter(endpoint -> closed.stream().noneMatch(path -> covers(path, endpoint.pattern())))
          .collect(
              Collectors.collectingAndThen(
                  Collectors.toMap(
                      Artifact.Endpoint::pattern,
                      one -> one,
                      (one, other) -> one,
                      LinkedHashMap::new),
                  all -> List.copyOf(all.values())));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** The empty pattern is the root by itself (Jakarta Servlet 6.0, section 12.2). */
  private static Artifact.Endpoint asPath(Artifact.Endpoint endpoint) {
    return endpoint.pattern().isEmpty()
        ? new Artifact.Endpoint("/", endpoint.servlet(), endpoint.where())
        : endpoint;
  }

  private static boolean answersGet(ZipArchive archive, Artifact.Endpoint endpoint) {
    String entry = "WEB-INF/classes/" + endpoint.servlet().replace('.', '/') + ".class";
    Optional<ZipMember> member =
        archive.members().stream().filter(one -> one.name().equals(entry)).findFirst();
    try {
      return member.isPresent()
          && HandledMethods.of(archive.read(member.get(), MOST_BYTES)).contains("doGet");
    } catch (IOException e) {
      return false;
    }
  }

  /** Roles by the URL patterns that only they may open (Jakarta Servlet 6.0, section 13.8). */
  static Map<String, List<String>> closed(ZipArchive archive) throws IOException {
    Optional<ZipMember> descriptor =
        archive.members().stream()
            .filter(member -> member.name().equals("WEB-INF/web.xml"))
            .findFirst();
    if (descriptor.isEmpty()) {
      return Map.of();
    }
    try {
      XmlElement root =
          XmlDocument.parse("web.xml", archive.read(descriptor.get(), MOST_BYTES)).root();
      Map<String, List<String>> closed = new LinkedHashMap<>();
      for (XmlElement constraint : root.children("security-constraint")) {
        Optional<XmlElement> roles = constraint.child("auth-constraint");
        roles.ifPresent(
            only ->
                constraint.children("web-resource-collection").stream()
                    .flatMap(collection -> texts(collection, "url-pattern"))
                    .forEach(pattern -> closed.put(pattern, texts(only, "role-name").toList())));
      }
      return closed;
    } catch (XmlException e) {
      return Map.of("/*", List.of());
    }
  }

  private static Stream<String> texts(XmlElement element, String name) {
    return element.children(name).stream().map(child -> child.text().strip());
  }

  private static boolean covers(String pattern, String path) {
    if (pattern.endsWith("/*")) {
      String start = pattern.substring(0, pattern.length() - 2);
      return path.equals(start) || path.startsWith(start + "/");
    }
    return pattern.equals(path) || pattern.startsWith("*.") && path.endsWith(pattern.substring(1));
  }
}

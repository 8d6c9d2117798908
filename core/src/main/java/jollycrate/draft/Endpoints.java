package jollycrate.draft;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.LinkedHashMap;
import java.util.List;
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
      Set<String> closed = closed(archive);
      Stream<Artifact.Endpoint> pages =
          archive.members().stream()
              .map(ZipMember::name)
              .filter(FIRST_PAGES::contains)
              .limit(1)
              .map(name -> new Artifact.Endpoint("/", name, name));
      Stream<Artifact.Endpoint> servlets =
          artifact.web().endpoints().stream()
              .filter(endpoint -> endpoint.pattern().matches("/[^*{}]+"))
              .filter(endpoint -> answersGet(archive, endpoint));
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

  /** URL patterns that only some may open (Jakarta Servlet 6.0, section 13.8). */
  private static Set<String> closed(ZipArchive archive) throws IOException {
    Optional<ZipMember> descriptor =
        archive.members().stream()
            .filter(member -> member.name().equals("WEB-INF/web.xml"))
            .findFirst();
    if (descriptor.isEmpty()) {
      return Set.of();
    }
    try {
      XmlElement root =
          XmlDocument.parse("web.xml", archive.read(descriptor.get(), MOST_BYTES)).root();
      return root.children("security-constraint").stream()
          .filter(constraint -> constraint.child("auth-constraint").isPresent())
          .flatMap(constraint -> constraint.children("web-resource-collection").stream())
          .flatMap(collection -> collection.children("url-pattern").stream())
          .map(pattern -> pattern.text().strip())
          .collect(Collectors.toSet());
    } catch (XmlException e) {
      return Set.of("/*");
    }
  }

  private static boolean covers(String pattern, String path) {
    if (pattern.endsWith("/*")) {
      String start = pattern.substring(0, pattern.length() - 2);
      return path.equals(start) || path.startsWith(start + "/");
    }
    return pattern.equals(path) || pattern.startsWith("*.") && path.endsWith(pattern.substring(1));
  }
}

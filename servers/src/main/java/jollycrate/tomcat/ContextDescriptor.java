package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.secret.SecretNames;
import jollycrate.secret.Secrets;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlAttribute;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;
import jollycrate.xml.XmlText;

/**
 * The descriptor that carries a whole application. It starts from the artifact's own {@code
 * META-INF/context.xml}, which Tomcat ignores once a descriptor stands, and keeps everything in it
 * that we do not describe.
 */
final class ContextDescriptor {
  private static final String EMPTY =
      "<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<Context>\n</Context>\n";

  private static final String ENTRY = "Environment";
  private static final String SECRET = "secret";

  private final XmlDocument document;
  private final XmlElement context;
  private final List<Splice> splices = new ArrayList<>();
  private final List<XmlAttribute> attributes = new ArrayList<>();
  private final StringBuilder inside = new StringBuilder();
  private String caching = "";

  ContextDescriptor(Optional<XmlText> own) {
    this.document = XmlDocument.parse("META-INF/context.xml", own.orElse(XmlText.of(EMPTY)));
    this.context = document.root();
  }

  void docBase(Path artifact) {
    attributes.add(new XmlAttribute("docBase", artifact.toString()));
    context.attributes().stream()
        .filter(there -> !there.name().equals("docBase") && !there.name().equals("path"))
        .forEach(attributes::add);
  }

  /**
   * Of an application that changes in its place: files are read afresh, and another stamp makes
   * another descriptor, by which Tomcat starts the application anew. Comes before {@link
   * #libraries}.
   */
  void unfolded(String stamp) {
    caching = " cachingAllowed=\"false\"";
    inside.append("  <!-- content ").append(stamp).append(" -->\n");
  }

  /**
   * Archives that the application finds among its own libraries, under their own file names: Tomcat
   * lists a mounted file by that name and would not find it under another one.
   */
  void libraries(Set<Path> archives) {
    if (archives.isEmpty() && caching.isEmpty()) {
      return;
    }
    StringBuilder post = new StringBuilder();
    archives.forEach(
        file ->
            post.append("    <PostResources")
                .append(" className=\"org.apache.catalina.webresources.FileResourceSet\"")
                .append("\n                   base=\"")
                .append(XmlDocument.escape(file.toString()))
                .append("\"\n                   webAppMount=\"/WEB-INF/lib/")
                .append(XmlDocument.escape(file.getFileName().toString()))
                .append("\"/>\n"));
    Optional<XmlElement> resources = context.child("Resources");
    if (resources.isEmpty()) {
      inside
          .append("  <Resources")
          .append(caching)
          .append(">\n")
          .append(post)
          .append("  </Resources>\n");
    } else {
      splices.add(document.inserting(resources.get(), post.toString()));
    }
  }

  /** Users of the application, before those whom the server knows. */
  void users(String pathname, Optional<String> serverRealm) {
    Optional<XmlElement> own = context.child("Realm");
    Optional<String> second =
        own.map(realm -> document.text().substring(realm.start(), realm.end()))
            .or(() -> serverRealm);
    own.ifPresent(realm -> splices.add(new Splice(realm.start(), realm.end(), "")));
    inside
        .append("  <Realm className=\"org.apache.catalina.realm.CombinedRealm\">\n")
        .append("    <Realm className=\"org.apache.catalina.realm.MemoryRealm\" pathname=\"")
        .append(XmlDocument.escape(pathname))
        .append("\">\n      ")
        .append(CredentialHandler.xml("\n                         "))
        .append("\n    </Realm>\n");
    second.ifPresent(realm -> inside.append("    ").append(realm.strip()).append('\n'));
    inside.append("  </Realm>\n");
  }

  /** A resource in place of one of that name. */
  void resource(String name, String element) {
    inPlaceOf("Resource", name, element);
  }

  /**
   * An environment entry in place of one of that name; what web.xml says for it does not count.
   *
   * @param secret whether people must not see its value
   */
  void entry(String name, String type, String value, boolean secret) {
    inPlaceOf(
        ENTRY,
        name,
        "<Environment name=\""
            + XmlDocument.escape(name)
            + "\" type=\""
            + XmlDocument.escape(type)
            + "\" override=\"false\""
            + (secret ? "\n               description=\"" + SECRET + "\" value=\"" : " value=\"")
            + XmlDocument.escape(value)
            + "\"/>");
  }

  private void inPlaceOf(String kind, String name, String element) {
    for (XmlElement there : context.children(kind)) {
      if (there.value("name", "").equals(name)) {
        splices.add(new Splice(there.start(), there.end(), ""));
      }
    }
    inside.append("  ").append(element).append('\n');
  }

  /** In the encoding of the artifact's own; all that is ours is ASCII. */
  XmlText text() {
    String tag = context.startTag(attributes);
    String open = context.selfClosed() ? tag.substring(0, tag.length() - "/>".length()) : tag;
    int tagEnd = context.tagEnd() - (context.selfClosed() ? "/>".length() : 0);
    splices.add(new Splice(context.start(), tagEnd, open));
    splices.add(document.inserting(context, inside.toString()));
    return document.with(splices);
  }

  /** Values in a descriptor that people must not see; none in one that somebody broke. */
  static Map<String, String> secretsIn(byte[] descriptor) {
    Map<String, String> secrets = new HashMap<>();
    try {
      collect(XmlDocument.parse("descriptor", descriptor).root(), secrets);
    } catch (XmlException broken) {
      return Map.of();
    }
    return secrets;
  }

  private static void collect(XmlElement element, Map<String, String> secrets) {
    if (element.name().equals(ENTRY) && element.value("description", "").equals(SECRET)) {
      secrets.put(element.value("value", ""), Secrets.HIDDEN);
    }
    for (XmlAttribute attribute : element.attributes()) {
      if (SecretNames.match(attribute.name()) && !attribute.value().isEmpty()) {
        secrets.put(attribute.value(), Secrets.HIDDEN);
      }
    }
    element.children().forEach(child -> collect(child, secrets));
  }
}

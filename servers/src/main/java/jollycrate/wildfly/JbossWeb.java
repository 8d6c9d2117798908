package jollycrate.wildfly;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/**
 * {@code WEB-INF/jboss-web.xml}, from which WildFly takes where an application answers and what it
 * finds by which name. It starts from the application's own and keeps everything else in it.
 */
final class JbossWeb {
  static final String PATH = "WEB-INF/jboss-web.xml";

  private static final String EMPTY = "<jboss-web>\n</jboss-web>\n";

  private final XmlDocument document;
  private final StringBuilder added = new StringBuilder();
  private final Set<String> places = new TreeSet<>();
  private final Set<String> names = new TreeSet<>();

  JbossWeb(Optional<byte[]> own) {
    this.document =
        own.map(bytes -> XmlDocument.parse(PATH, bytes))
            .orElseGet(() -> XmlDocument.parse(PATH, EMPTY));
  }

  void answersAt(String contextPath) {
    place("context-root", contextPath.isEmpty() ? "/" : contextPath);
  }

  /** A server of the web container, and a host of it. */
  void listensAt(String server, String host) {
    place("server-instance", server);
    place("virtual-host", host);
  }

  private void place(String element, String value) {
    places.add(element);
    added.append("  ").append(element(element, value)).append('\n');
  }

  void dataSource(String name, String boundAt) {
    names.add(name);
    added
        .append("  <resource-ref>")
        .append(element("res-ref-name", name))
        .append(element("res-type", "javax.sql.DataSource"))
        .append(element("jndi-name", boundAt))
        .append("</resource-ref>\n");
  }

  /** Two passes each take two dollars for one, and read what stands in braces behind one. */
  void entry(String name, String type, String value) {
    names.add(name);
    added
        .append("  <env-entry>")
        .append(element("env-entry-name", name))
        .append(element("env-entry-type", type))
        .append(element("env-entry-value", value.replace("$", "$$$$")))
        .append("</env-entry>\n");
  }

  private static String element(String name, String value) {
    return "<" + name + ">" + XmlDocument.escape(value) + "</" + name + ">";
  }

  /** The text as it goes into the archive. */
  byte[] text() {
    XmlElement root = document.root();
    List<Splice> splices = new ArrayList<>();
    for (XmlElement child : root.children()) {
      boolean replaced =
          places.contains(child.name())
              || names.contains(child.childText("res-ref-name"))
              || names.contains(child.childText("env-entry-name"));
      if (replaced) {
        splices.add(document.removing(child));
      }
    }
    splices.add(document.inserting(root, added.toString()));
    return document.with(splices).bytes();
  }
}

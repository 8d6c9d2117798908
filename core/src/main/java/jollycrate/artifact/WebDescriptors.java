package jollycrate.artifact;

import java.util.ArrayList;
import java.util.List;
import java.util.SortedSet;
import java.util.TreeSet;

/** What {@code web.xml} (Jakarta Servlet 6.0, chapter 14) and {@code persistence.xml} declare. */
final class WebDescriptors {
  private static final String ENVIRONMENT = "java:comp/env/";

  private final List<Artifact.Declared> dataSources = new ArrayList<>();
  private final SortedSet<String> roles = new TreeSet<>();

  void readWebXml(String entry, byte[] bytes) {
    XmlDocument document = XmlDocument.parse(entry, bytes);
    XmlElement root = document.root();
    for (XmlElement reference : root.children("resource-ref")) {
      String type = reference.childText("res-type");
      if (type.isEmpty() || type.equals("javax.sql.DataSource")) {
        declare(
            reference.childText("res-ref-name"), entry + ":" + document.lineOf(reference.start()));
      }
    }
    root.children("security-role").forEach(role -> addRole(role.childText("role-name")));
    root.descendants("auth-constraint").stream()
        .flatMap(constraint -> constraint.children("role-name").stream())
        .forEach(role -> addRole(role.text()));
  }

  void readPersistenceXml(String entry, byte[] bytes) {
    XmlDocument document = XmlDocument.parse(entry, bytes);
    for (String kind : List.of("jta-data-source", "non-jta-data-source")) {
      for (XmlElement source : document.root().descendants(kind)) {
        declare(source.text(), entry + ":" + document.lineOf(source.start()));
      }
    }
  }

  void declare(String jndiName, String where) {
    String name =
        jndiName.startsWith(ENVIRONMENT) ? jndiName.substring(ENVIRONMENT.length()) : jndiName;
    boolean known = dataSources.stream().anyMatch(declared -> declared.name().equals(name));
    if (!name.isEmpty() && !name.startsWith("java:") && !known) {
      dataSources.add(new Artifact.Declared(name, where));
    }
  }

  List<Artifact.Declared> dataSources() {
    return List.copyOf(dataSources);
  }

  SortedSet<String> roles() {
    return roles;
  }

  private void addRole(String role) {
    if (!role.isEmpty() && !role.equals("*") && !role.equals("**")) {
      roles.add(role);
    }
  }
}

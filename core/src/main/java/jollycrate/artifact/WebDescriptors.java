package jollycrate.artifact;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SortedSet;
import java.util.TreeSet;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/** What {@code web.xml} (Jakarta Servlet 6.0, chapter 14) and {@code persistence.xml} declare. */
final class WebDescriptors {

  private final List<Artifact.Declared> dataSources = new ArrayList<>();
  private final List<Artifact.Resource> resources = new ArrayList<>();
  private final List<Artifact.DeclaredEntry> entries = new ArrayList<>();
  private final SortedSet<String> roles = new TreeSet<>();
  private final List<Artifact.Guarded> guarded = new ArrayList<>();
  private final List<Artifact.Endpoint> endpoints = new ArrayList<>();
  private final List<Artifact.Endpoint> annotated = new ArrayList<>();
  private final List<Component> components = new ArrayList<>();
  private final List<Component> ofFragments = new ArrayList<>();
  private boolean complete;

  /** A class that the container starts because a descriptor names it. */
  record Component(String className, String where) {}

  void readWebXml(String entry, byte[] bytes) {
    components.addAll(read(entry, bytes));
  }

  void readFragment(String entry, byte[] bytes) {
    ofFragments.addAll(read(entry, bytes));
  }

  private List<Component> read(String entry, byte[] bytes) {
    XmlDocument document = XmlDocument.parse(entry, bytes);
    XmlElement root = document.root();
    for (XmlElement reference : root.children("resource-ref")) {
      declare(reference, "res", entry + ":" + document.lineOf(reference.start()));
    }
    for (String kind : List.of("resource-env", "message-destination")) {
      for (XmlElement reference : root.children(kind + "-ref")) {
        declare(reference, kind, entry + ":" + document.lineOf(reference.start()));
      }
    }
    for (XmlElement declared : root.children("env-entry")) {
      declareEntry(declared, entry + ":" + document.lineOf(declared.start()));
    }
    complete |= root.name().equals("web-app") && root.value("metadata-complete", "").equals("true");
    readServlets(entry, document);
    root.children("security-role").forEach(role -> addRole(role.childText("role-name")));
    root.descendants("auth-constraint").stream()
        .flatMap(constraint -> constraint.children("role-name").stream())
        .forEach(role -> addRole(role.text()));
    root.children("security-constraint")
        .forEach(
            constraint -> guard(constraint, entry + ":" + document.lineOf(constraint.start())));
    return components(entry, document);
  }

  private void guard(XmlElement constraint, String where) {
    List<String> patterns =
        constraint.children("web-resource-collection").stream()
            .flatMap(collection -> collection.children("url-pattern").stream())
            .map(XmlElement::text)
            .toList();
    if (!patterns.isEmpty() && constraint.child("auth-constraint").isPresent()) {
      List<String> named =
          constraint.descendants("role-name").stream().map(XmlElement::text).toList();
      guarded.add(new Artifact.Guarded(patterns, named, where));
    }
  }

  private static List<Component> components(String entry, XmlDocument document) {
    List<Component> found = new ArrayList<>();
    for (String kind : List.of("servlet", "filter", "listener")) {
      for (XmlElement element : document.root().children(kind)) {
        String name = element.childText(kind + "-class");
        if (!name.isEmpty()) {
          found.add(new Component(name, entry + ":" + document.lineOf(element.start())));
        }
      }
    }
    return found;
  }

  /** Classes that descriptors name; a complete one keeps fragments from being read (8.1). */
  List<Component> components() {
    List<Component> all = new ArrayList<>(components);
    if (!complete) {
      all.addAll(ofFragments);
    }
    return all;
  }

  private void readServlets(String entry, XmlDocument document) {
    Map<String, String> classes = new HashMap<>();
    for (XmlElement servlet : document.root().children("servlet")) {
      String page = servlet.childText("jsp-file");
      classes.put(
          servlet.childText("servlet-name"),
          page.isEmpty() ? servlet.childText("servlet-class") : page);
    }
    for (XmlElement mapping : document.root().children("servlet-mapping")) {
      String name = mapping.childText("servlet-name");
      for (XmlElement pattern : mapping.children("url-pattern")) {
        endpoints.add(
            new Artifact.Endpoint(
                pattern.text(),
                classes.getOrDefault(name, name),
                entry + ":" + document.lineOf(pattern.start())));
      }
    }
  }

  /** A servlet that an annotation maps. */
  void mapped(Artifact.Endpoint endpoint) {
    annotated.add(endpoint);
  }

  /** A complete descriptor keeps annotations from being read (section 8.1). */
  List<Artifact.Endpoint> endpoints() {
    List<Artifact.Endpoint> all = new ArrayList<>(endpoints);
    if (!complete) {
      all.addAll(annotated);
    }
    all.sort(Comparator.comparing(Artifact.Endpoint::pattern));
    return List.copyOf(all);
  }

  /** Modules of {@code application.xml} (Jakarta EE 10, section 8.6). */
  static List<String> modules(String entry, byte[] bytes) {
    List<String> modules = new ArrayList<>();
    for (XmlElement module : XmlDocument.parse(entry, bytes).root().children("module")) {
      for (XmlElement kind : module.children()) {
        String path = kind.childText("context-root");
        String file = kind.name().equals("web") ? kind.childText("web-uri") : kind.text();
        modules.add(
            file
                + " ("
                + kind.name()
                + (path.isEmpty() ? "" : " at /" + path.replaceFirst("^/", ""))
                + ")");
      }
    }
    return modules;
  }

  void readPersistenceXml(String entry, byte[] bytes) {
    XmlDocument document = XmlDocument.parse(entry, bytes);
    for (String kind : List.of("jta-data-source", "non-jta-data-source")) {
      for (XmlElement source : document.root().descendants(kind)) {
        declare(source.text(), entry + ":" + document.lineOf(source.start()));
      }
    }
  }

  private void declare(XmlElement reference, String kind, String where) {
    String name = reference.childText(kind + "-ref-name");
    String type = reference.childText(kind.equals("res") ? "res-type" : kind + "-ref-type");
    type = type.isEmpty() ? reference.childText(kind + "-type") : type;
    if (type.equals("javax.sql.DataSource") || type.isEmpty() && kind.equals("res")) {
      declare(name, where);
    } else if (!name.isEmpty()) {
      resources.add(new Artifact.Resource(name, type, where));
    }
  }

  void declare(String jndiName, String where) {
    String name = Artifact.Declared.ownName(jndiName);
    boolean known = dataSources.stream().anyMatch(declared -> declared.name().equals(name));
    if (!name.isEmpty() && !name.startsWith("java:") && !known) {
      dataSources.add(new Artifact.Declared(name, where));
    }
  }

  private void declareEntry(XmlElement entry, String where) {
    String name = entry.childText("env-entry-name");
    boolean known = entries.stream().anyMatch(declared -> declared.name().equals(name));
    if (!name.isEmpty() && !known) {
      boolean valued = !entry.children("env-entry-value").isEmpty();
      entries.add(
          new Artifact.DeclaredEntry(name, entry.childText("env-entry-type"), valued, where));
    }
  }

  List<Artifact.DeclaredEntry> entries() {
    return List.copyOf(entries);
  }

  List<Artifact.Resource> resources() {
    return List.copyOf(resources);
  }

  /** Takes over what the web module of an EAR declares. */
  void declaredBy(String module, Artifact.Web web) {
    String within = module + "!/";
    web.dataSources().forEach(one -> declare(one.name(), within + one.where()));
    web.resources()
        .forEach(
            one ->
                resources.add(new Artifact.Resource(one.name(), one.type(), within + one.where())));
    roles.addAll(web.roles());
  }

  List<Artifact.Declared> dataSources() {
    return List.copyOf(dataSources);
  }

  List<Artifact.Guarded> guarded() {
    return List.copyOf(guarded);
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

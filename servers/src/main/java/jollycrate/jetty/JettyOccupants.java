package jollycrate.jetty;

import java.io.IOException;
import java.io.StringReader;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.hosting.Delivered;
import jollycrate.server.Occupant;
import jollycrate.server.Placement;
import jollycrate.server.Stock;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** What stands in the folders that a Jetty looks at, by what the descriptors there say. */
final class JettyOccupants {
  /** Ending of a file that tells of the application of the same name. */
  static final String PROPERTIES = ".properties";

  private static final String CONNECTOR = "@";

  private final Stock stock;
  private final JettyBase base;

  JettyOccupants(Stock stock) {
    this.stock = stock;
    this.base = JettyBase.of(stock);
  }

  List<Occupant> all() {
    List<Occupant> all = new ArrayList<>();
    for (Path folder : base.folders()) {
      List<Path> files = stock.children().getOrDefault(folder, List.of());
      Set<String> described =
          files.stream()
              .filter(JettyOccupants::isDescriptor)
              .map(Delivered::baseName)
              .collect(Collectors.toSet());
      for (Path file : files) {
        if (isDescriptor(file)) {
          all.addAll(described(file));
        } else if (isApplication(file) && !described.contains(Delivered.baseName(file))) {
          all.add(named(file));
        }
      }
    }
    return all;
  }

  private static boolean isDescriptor(Path file) {
    return file.toString().endsWith(".xml");
  }

  /** An archive, or a folder: those in whose names a dot stands carry settings. */
  private static boolean isApplication(Path file) {
    String name = file.getFileName().toString();
    return name.endsWith(".war") || !name.contains(".");
  }

  private Occupant named(Path file) {
    return new Occupant(Placement.MAIN, inContext(byName(file)), file, true);
  }

  private static String inContext(String path) {
    return path.equals("/") ? "" : path;
  }

  /** By the properties that stand beside it under the same name, else by that name. */
  private String byName(Path file) {
    String name = Delivered.baseName(file);
    Properties properties = new Properties();
    stock
        .text(file.resolveSibling(name + PROPERTIES))
        .ifPresent(
            text -> {
              try {
                properties.load(new StringReader(text));
              } catch (IOException | IllegalArgumentException broken) {
                properties.clear();
              }
            });
    return properties.getProperty(
        "jetty.deploy.contextPath",
        properties.getProperty("jetty.deploy.defaultContextPath", JettyNames.pathOf(name)));
  }

  /** What is written in an element, or what the property stands for that it names. */
  private Optional<String> value(XmlElement set) {
    Optional<XmlElement> named =
        Stream.of("Property", "SystemProperty", "Env")
            .flatMap(kind -> set.children(kind).stream())
            .findFirst();
    if (named.isEmpty()) {
      return Optional.of(set.text().strip());
    }
    Optional<String> told =
        named
            .filter(property -> property.name().equals("Property"))
            .flatMap(property -> base.property(part(property, "name").orElse("")))
            .map(JettyBase.Told::value);
    return told.or(() -> part(named.get(), "default"));
  }

  /** An attribute, or the child element of that name in its other spelling. */
  private static Optional<String> part(XmlElement property, String name) {
    String child = property.childText(Character.toUpperCase(name.charAt(0)) + name.substring(1));
    return Optional.of(property.value(name, child)).filter(text -> !text.isEmpty());
  }

  private List<Occupant> described(Path file) {
    Optional<XmlElement> root = root(file);
    if (root.isEmpty()) {
      return List.of(named(file));
    }
    String path =
        root.get().descendants("Set").stream()
            .filter(set -> set.value("name", "").equals("contextPath"))
            .flatMap(set -> value(set).stream())
            .findFirst()
            .orElseGet(() -> byName(file));
    List<String> listeners =
        root.get().descendants("Item").stream()
            .filter(item -> item.value("type", "").isEmpty())
            .map(XmlElement::text)
            .map(JettyOccupants::listener)
            .distinct()
            .toList();
    String context = inContext(path);
    return (listeners.isEmpty() ? List.of(Placement.MAIN) : listeners)
        .stream().map(listener -> new Occupant(listener, context, file, true)).toList();
  }

  /** Of a name of a host, of {@code @connector}, or of both. */
  private static String listener(String virtualHost) {
    int at = virtualHost.indexOf(CONNECTOR);
    String host = at < 0 ? virtualHost : virtualHost.substring(0, at);
    return host.isEmpty() ? virtualHost.substring(at + 1) : host;
  }

  private Optional<XmlElement> root(Path file) {
    try {
      return stock
          .text(file)
          .map(text -> XmlDocument.parse(file.getFileName().toString(), text).root());
    } catch (XmlException broken) {
      return Optional.empty();
    }
  }
}

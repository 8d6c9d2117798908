package jollycrate.liberty;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.hosting.ArchivesIn;
import jollycrate.hosting.Delivered;
import jollycrate.server.Occupant;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** What the configuration of an Open Liberty says that stands on it. */
final class LibertyOccupants {
  private static final String ENDING = ".xml";
  private static final String NAME = "name";
  private static final List<String> ELEMENTS = List.of("webApplication", "application");
  private static final String DEFAULT_HOST = "default_host";

  private LibertyOccupants() {}

  static List<Occupant> of(Stock stock) {
    Stream<Occupant> described =
        stock.texts().keySet().stream()
            .filter(file -> file.toString().endsWith(ENDING))
            .sorted()
            .flatMap(
                file ->
                    root(stock, file).stream()
                        .flatMap(root -> ELEMENTS.stream().map(root::descendants))
                        .flatMap(List::stream)
                        .map(application -> occupant(application, file)));
    return Stream.concat(described, archives(stock.server()).occupants(stock).stream()).toList();
  }

  /** What it deploys without being told, where people have one. */
  static ArchivesIn archives(Server server) {
    return new ArchivesIn(server.folder().resolve("dropins"), "");
  }

  private static Occupant occupant(XmlElement application, Path file) {
    String location = Delivered.baseName(Path.of(application.value("location", "")));
    String root =
        application.value(
            "contextRoot", application.value("context-root", application.value(NAME, location)));
    String path = root.startsWith("/") ? root : "/" + root;
    String listener =
        application.descendants("virtual-host").stream()
            .map(host -> host.value(NAME, DEFAULT_HOST))
            .filter(name -> !name.equals(DEFAULT_HOST))
            .findFirst()
            .orElse(Placement.MAIN);
    return new Occupant(listener, path.equals("/") ? "" : path, file, true);
  }

  private static Optional<XmlElement> root(Stock stock, Path file) {
    try {
      return stock
          .text(file)
          .map(text -> XmlDocument.parse(file.getFileName().toString(), text).root());
    } catch (XmlException broken) {
      return Optional.empty();
    }
  }
}

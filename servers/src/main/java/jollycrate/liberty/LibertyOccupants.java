package jollycrate.liberty;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.server.Occupant;
import jollycrate.server.Placement;
import jollycrate.server.Stock;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** What the configuration of an Open Liberty says that stands on it. */
final class LibertyOccupants {
  private static final String ENDING = ".xml";
  private static final String NAME = "name";
  private static final String DEFAULT_HOST = "default_host";

  private LibertyOccupants() {}

  static List<Occupant> of(Stock stock) {
    return stock.texts().keySet().stream()
        .filter(file -> file.toString().endsWith(ENDING))
        .sorted()
        .flatMap(
            file ->
                root(stock, file).stream()
                    .flatMap(root -> root.descendants("webApplication").stream())
                    .map(application -> occupant(application, file)))
        .toList();
  }

  private static Occupant occupant(XmlElement application, Path file) {
    String path = application.value("contextRoot", "/" + application.value(NAME, ""));
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

package jollycrate.hosting;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import jollycrate.app.DataSource;
import jollycrate.artifact.Artifact;
import jollycrate.server.Order;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/**
 * Persistence units of an application (Jakarta Persistence 3.0, section 8.2), whose data sources
 * are named by global names: each kind of server finds those that are described under another one.
 */
public final class PersistenceUnits {
  private static final String PATH = "WEB-INF/classes/META-INF/persistence.xml";

  private final Order order;
  private final DerivedWar war;
  private final UnaryOperator<String> naming;

  /**
   * Of an order.
   *
   * @param war gets what is written otherwise
   * @param naming where the server finds a data source, by the name it is described under
   */
  public PersistenceUnits(Order order, DerivedWar war, UnaryOperator<String> naming) {
    this.order = order;
    this.war = war;
    this.naming = naming;
  }

  /**
   * Puts the names right in the application's own classes; libraries stay as they are.
   *
   * @param refusals gets what cannot be read
   */
  public void name(Refusals refusals) {
    try {
      Optional<byte[]> own = war.text(PATH);
      if (own.isPresent()) {
        XmlDocument document = XmlDocument.parse(PATH, own.get());
        List<Splice> splices = splices(document);
        if (!splices.isEmpty()) {
          war.put(PATH, document.with(splices).bytes());
        }
      }
    } catch (XmlException broken) {
      refusals.refuse(PATH, broken.getMessage(), "Fix it in the archive");
    }
  }

  private List<Splice> splices(XmlDocument document) {
    List<Splice> splices = new ArrayList<>();
    Stream.of("jta-data-source", "non-jta-data-source")
        .flatMap(element -> document.root().descendants(element).stream())
        .forEach(element -> splice(element).ifPresent(splices::add));
    return splices;
  }

  private Optional<Splice> splice(XmlElement element) {
    String written = element.text().strip();
    return described(written)
        .map(source -> naming.apply(source.jndiName()))
        .filter(name -> !name.equals(written))
        .map(name -> new Splice(element.tagEnd(), element.contentEnd(), XmlDocument.escape(name)));
  }

  private Optional<DataSource> described(String name) {
    String plain = Artifact.Declared.ownName(name);
    return order.application().dataSources().stream()
        .filter(source -> source.jndiName().equals(plain))
        .findFirst();
  }
}

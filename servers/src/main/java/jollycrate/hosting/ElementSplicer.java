package jollycrate.hosting;

import java.util.List;
import java.util.Optional;
import jollycrate.server.PickUp;
import jollycrate.server.Splicer;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** Elements that applications need in an XML file which a server reads when it starts. */
public abstract class ElementSplicer implements Splicer {
  /** The element inside which the one of a key is to stand. */
  protected abstract Optional<XmlElement> around(XmlDocument document, String key);

  /** The name of the element that a key stands for. */
  protected abstract String element(String key);

  /** The value of its attribute {@code name}. */
  protected abstract String name(String key);

  @Override
  public final PickUp pickUp() {
    return PickUp.RESTART;
  }

  @Override
  public final Optional<String> find(String text, String key) {
    try {
      return standing(XmlDocument.parse(key, text), key)
          .map(found -> text.substring(found.start(), found.end()));
    } catch (XmlException broken) {
      return Optional.empty();
    }
  }

  @Override
  public final String insert(String text, String key, String fragment) {
    XmlDocument document = XmlDocument.parse(key, text);
    Splice splice =
        standing(document, key)
            .map(there -> new Splice(there.start(), there.end(), fragment))
            .orElseGet(
                () ->
                    document.appending(
                        around(document, key).orElseThrow(() -> lacksPlace(document)),
                        List.of(fragment)));
    return Splice.apply(text, List.of(splice));
  }

  @Override
  public final String remove(String text, String key) {
    XmlDocument document = XmlDocument.parse(key, text);
    return standing(document, key)
        .map(there -> Splice.apply(text, List.of(document.removing(there))))
        .orElse(text);
  }

  private static XmlException lacksPlace(XmlDocument document) {
    return new XmlException(
        document.name(), 1, 1, "the element in which it is to stand is not there any more");
  }

  private Optional<XmlElement> standing(XmlDocument document, String key) {
    return around(document, key).stream()
        .flatMap(around -> around.children(element(key)).stream())
        .filter(child -> child.value("name", "").equals(name(key)))
        .findFirst();
  }

  /** The first element of a name that is called so. */
  protected static Optional<XmlElement> named(XmlDocument document, String element, String name) {
    return document.root().descendants(element).stream()
        .filter(found -> found.value("name", "").equals(name))
        .findFirst();
  }
}

package jollycrate.hosting;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import java.util.stream.Stream;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/** A configuration that ships with a server, and what is changed of it for a new instance. */
public final class ShippedXml {
  private static final String NAME = "name";

  private final XmlDocument document;
  private final List<Splice> splices = new ArrayList<>();

  /** Unchanged. */
  public ShippedXml(String name, byte[] shipped) {
    this.document = XmlDocument.parse(name, shipped);
  }

  /** The whole as it is now. */
  public byte[] text() {
    return document.with(splices).bytes();
  }

  /** Elements, wherever they stand. */
  public Stream<XmlElement> all(String element) {
    return document.root().descendants(element).stream();
  }

  /** Those whose attribute {@code name} is such. */
  public Stream<XmlElement> named(String element, Predicate<String> name) {
    return with(element, NAME, name);
  }

  /** Those whose attribute is such. */
  public Stream<XmlElement> with(String element, String attribute, Predicate<String> value) {
    return all(element).filter(one -> value.test(one.value(attribute, "")));
  }

  /** Those whose first tag, as it is written, holds a text. */
  public Stream<XmlElement> telling(String element, String text) {
    return all(element)
        .filter(one -> document.text().substring(one.start(), one.tagEnd()).contains(text));
  }

  /** Takes elements away. */
  public void remove(Stream<XmlElement> elements) {
    elements.forEach(element -> splices.add(document.removing(element)));
  }

  /** Takes an attribute away from elements. */
  public void without(Stream<XmlElement> elements, String attribute) {
    elements.forEach(
        one -> {
          String others =
              one.startTag(
                  one.attributes().stream()
                      .filter(told -> !told.name().equals(attribute))
                      .toList());
          splices.add(new Splice(one.start(), one.tagEnd(), others));
        });
  }

  /** Gives elements an attribute. */
  public void set(Stream<XmlElement> elements, String attribute, String value) {
    elements.forEach(one -> splices.add(document.setting(one, attribute, value)));
  }

  /** Puts a line at the end of what stands inside elements. */
  public void append(Stream<XmlElement> elements, String line) {
    elements.forEach(one -> splices.add(document.appending(one, List.of(line))));
  }

  /** Puts a line behind elements. */
  public void behind(Stream<XmlElement> elements, String line) {
    elements.forEach(one -> splices.add(document.behind(one, List.of(line))));
  }
}

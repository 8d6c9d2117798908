package jollycrate.xml;

import com.ctc.wstx.api.WstxInputProperties;
import com.ctc.wstx.stax.WstxInputFactory;
import java.io.ByteArrayInputStream;
import java.io.StringReader;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import org.codehaus.stax2.XMLInputFactory2;
import org.codehaus.stax2.XMLStreamReader2;

/** Makes elements of what a parser tells, with the places that it tells. */
final class XmlTree {
  private static final int DEEPEST = 500;
  private static final int MOST_ATTRIBUTES = 500;
  private static final WstxInputFactory FACTORY = factory();

  private final Deque<XmlElement> open = new ArrayDeque<>();
  private XmlElement root;
  private boolean documentType;

  private static WstxInputFactory factory() {
    WstxInputFactory factory = new WstxInputFactory();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
    factory.setProperty(XMLInputFactory.IS_NAMESPACE_AWARE, false);
    factory.setProperty(XMLInputFactory2.P_LAZY_PARSING, false);
    factory.setProperty(WstxInputProperties.P_MAX_ELEMENT_DEPTH, DEEPEST);
    factory.setProperty(WstxInputProperties.P_MAX_ATTRIBUTES_PER_ELEMENT, MOST_ATTRIBUTES);
    factory.setProperty(WstxInputProperties.P_MAX_CHARACTERS, (long) XmlDocument.MOST_BYTES);
    return factory;
  }

  /** The root element of a text. */
  static XmlElement of(String name, String text) {
    try {
      XMLStreamReader2 reader =
          (XMLStreamReader2) FACTORY.createXMLStreamReader(new StringReader(text));
      XmlTree tree = new XmlTree();
      while (reader.hasNext()) {
        tree.take(reader, reader.next());
      }
      return tree.root;
    } catch (XMLStreamException e) {
      throw XmlException.of(name, e);
    }
  }

  /** The encoding that bytes declare or begin with; null when they do neither. */
  static String encoding(byte[] bytes) throws XMLStreamException {
    return FACTORY.createXMLStreamReader(new ByteArrayInputStream(bytes)).getEncoding();
  }

  private void take(XMLStreamReader2 reader, int event) throws XMLStreamException {
    switch (event) {
      case XMLStreamConstants.START_ELEMENT -> begin(reader);
      case XMLStreamConstants.END_ELEMENT ->
          open.pop()
              .close(
                  (int) reader.getLocationInfo().getStartingCharOffset(),
                  (int) reader.getLocationInfo().getEndingCharOffset());
      case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA, XMLStreamConstants.SPACE ->
          text(reader.getText());
      case XMLStreamConstants.DTD -> documentType = true;
      case XMLStreamConstants.ENTITY_REFERENCE -> reference(reader);
      default -> {
        // Comments and instructions say nothing that is asked for.
      }
    }
  }

  private void begin(XMLStreamReader2 reader) throws XMLStreamException {
    List<XmlAttribute> attributes = new ArrayList<>();
    for (int i = 0; i < reader.getAttributeCount(); i++) {
      attributes.add(
          new XmlAttribute(reader.getAttributeLocalName(i), reader.getAttributeValue(i)));
    }
    XmlElement element =
        new XmlElement(
            reader.getLocalName(),
            (int) reader.getLocationInfo().getStartingCharOffset(),
            (int) reader.getLocationInfo().getEndingCharOffset(),
            attributes,
            reader.isEmptyElement());
    if (open.isEmpty()) {
      root = element;
    } else {
      open.peek().add(element);
    }
    open.push(element);
  }

  /** What a document type declares is not resolved; without one nothing is declared. */
  private void reference(XMLStreamReader2 reader) throws XMLStreamException {
    String written = "&" + reader.getLocalName() + ";";
    if (!documentType) {
      throw new XMLStreamException("nobody declares " + written, reader.getLocation());
    }
    text(written);
  }

  private void text(String more) {
    if (!open.isEmpty()) {
      open.peek().addText(more);
    }
  }
}

package jollycrate.artifact;

import java.io.ByteArrayInputStream;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * An XML text (XML 1.0) together with the position of everything in it, so that edits can be
 * splices. Untrusted: document types are skipped, no entity beyond the five predefined ones is
 * resolved, nothing outside the text is read.
 */
public final class XmlDocument {
  /** Documents larger than this are refused, in bytes. */
  public static final int MOST_BYTES = 4 << 20;

  private static final int DEEPEST = 500;

  private final String name;
  private final String text;
  private final Charset charset;
  private final XmlElement root;

  private XmlDocument(String name, String text, Charset charset) {
    this.name = name;
    this.text = text;
    this.charset = charset;
    this.root = new XmlScanner(text).root();
  }

  /**
   * Reads a document in the encoding it declares.
   *
   * @param name how messages call it
   * @throws XmlException when it is not well-formed or too large
   */
  public static XmlDocument parse(String name, byte[] bytes) {
    if (bytes.length > MOST_BYTES) {
      throw new XmlException(name, 1, 1, "larger than " + MOST_BYTES + " bytes");
    }
    Charset charset = validated(name, bytes);
    String text = new String(bytes, charset);
    return new XmlDocument(name, text.startsWith("\uFEFF") ? text.substring(1) : text, charset);
  }

  /** Reads a document held as text. */
  public static XmlDocument parse(String name, String text) {
    validated(name, text.getBytes(StandardCharsets.UTF_8));
    return new XmlDocument(name, text, StandardCharsets.UTF_8);
  }

  private static Charset validated(String name, byte[] bytes) {
    try {
      XMLStreamReader reader =
          secureFactory().createXMLStreamReader(new ByteArrayInputStream(bytes));
      String declared =
          Optional.ofNullable(reader.getCharacterEncodingScheme())
              .or(() -> Optional.ofNullable(reader.getEncoding()))
              .orElse("UTF-8");
      int depth = 0;
      while (reader.hasNext()) {
        int event = reader.next();
        depth += event == XMLStreamReader.START_ELEMENT ? 1 : 0;
        depth -= event == XMLStreamReader.END_ELEMENT ? 1 : 0;
        if (depth > DEEPEST) {
          throw new XmlException(
              name, reader.getLocation().getLineNumber(), 1, "nested deeper than " + DEEPEST);
        }
      }
      return Charset.forName(declared);
    } catch (XMLStreamException e) {
      int line = e.getLocation() == null ? 1 : e.getLocation().getLineNumber();
      int column = e.getLocation() == null ? 1 : e.getLocation().getColumnNumber();
      throw new XmlException(name, line, column, reasonOf(e));
    } catch (IllegalArgumentException e) {
      throw new XmlException(name, 1, 1, "encoding not known to this Java: " + e.getMessage());
    }
  }

  private static XMLInputFactory secureFactory() {
    XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
    factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
    factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
    factory.setProperty(XMLInputFactory.IS_NAMESPACE_AWARE, false);
    return factory;
  }

  private static String reasonOf(XMLStreamException e) {
    String message = String.valueOf(e.getMessage());
    int at = message.indexOf("Message: ");
    return at < 0 ? message : message.substring(at + "Message: ".length()).strip();
  }

  /** How messages call it. */
  public String name() {
    return name;
  }

  /** The text as it was read, without a byte order mark. */
  public String text() {
    return text;
  }

  /** The encoding it was read in. */
  public Charset charset() {
    return charset;
  }

  /** The root element. */
  public XmlElement root() {
    return root;
  }

  /** Line of a position, counted from 1. */
  public int lineOf(int position) {
    return 1 + (int) text.substring(0, position).chars().filter(c -> c == '\n').count();
  }

  /** The text with splices applied. */
  public String with(List<Splice> splices) {
    return Splice.apply(text, splices);
  }

  /**
   * Escapes a value for an attribute in double quotes or for text, in ASCII, so that it reads the
   * same in every encoding.
   */
  public static String escape(String value) {
    StringBuilder escaped = new StringBuilder();
    value
        .codePoints()
        .forEach(
            c -> {
              switch (c) {
                case '&' -> escaped.append("&amp;");
                case '<' -> escaped.append("&lt;");
                case '>' -> escaped.append("&gt;");
                case '"' -> escaped.append("&quot;");
                case '\'' -> escaped.append("&apos;");
                default -> {
                  if (c < 0x20 || c > 0x7e) {
                    escaped.append("&#").append(c).append(';');
                  } else {
                    escaped.append((char) c);
                  }
                }
              }
            });
    return escaped.toString();
  }
}

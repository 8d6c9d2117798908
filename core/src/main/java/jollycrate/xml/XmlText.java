package jollycrate.xml;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import javax.xml.stream.XMLStreamException;

/**
 * The text of a document and how it is written down.
 *
 * @param encoding by its name in Java
 * @param mark whether a byte order mark stands before it
 */
public record XmlText(String text, String encoding, boolean mark) {
  private static final String MARK = "\uFEFF";

  /** Text in UTF-8. */
  public static XmlText of(String text) {
    return new XmlText(text, StandardCharsets.UTF_8.name(), false);
  }

  /** Reads the encoding that a document declares or begins with (XML 1.0, appendix F). */
  static XmlText of(String name, byte[] bytes) {
    Charset charset = charset(name, bytes);
    try {
      String text = charset.newDecoder().decode(ByteBuffer.wrap(bytes)).toString();
      boolean mark = text.startsWith(MARK) || hasMark(charset, bytes);
      return new XmlText(text.startsWith(MARK) ? text.substring(1) : text, charset.name(), mark);
    } catch (CharacterCodingException e) {
      throw new XmlException(name, 1, 1, "not all of it is " + charset);
    }
  }

  /** The one decoder that takes a mark away by itself. */
  private static boolean hasMark(Charset charset, byte[] bytes) {
    return charset.equals(StandardCharsets.UTF_16) && bytes.length > 1 && (bytes[0] & 0xfe) == 0xfe;
  }

  private static Charset charset(String name, byte[] bytes) {
    try {
      String encoding = XmlTree.encoding(bytes);
      return Charset.forName(encoding == null ? StandardCharsets.UTF_8.name() : encoding);
    } catch (XMLStreamException e) {
      throw XmlException.of(name, e);
    } catch (IllegalArgumentException e) {
      throw new XmlException(name, 1, 1, "encoding not known to this Java: " + e.getMessage());
    }
  }

  /** Another text that is written down in the same way. */
  public XmlText with(String other) {
    return new XmlText(other, encoding, mark);
  }

  /** The text as it is written down. */
  public byte[] bytes() {
    Charset charset = Charset.forName(encoding);
    boolean marked = mark && !charset.equals(StandardCharsets.UTF_16);
    return ((marked ? MARK : "") + text).getBytes(charset);
  }
}

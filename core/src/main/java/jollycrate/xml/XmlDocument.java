package jollycrate.xml;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/**
 * An XML text (XML 1.0) together with the position of everything in it, so that edits can be
 * splices. Untrusted: document types are skipped, no entity beyond the five predefined ones is
 * resolved, nothing outside the text is read, and size, depth and attributes are bounded.
 */
public final class XmlDocument {
  /** Documents larger than this are refused, in bytes. */
  public static final int MOST_BYTES = 4 << 20;

  private final String name;
  private final XmlText written;
  private final int[] lines;
  private final XmlElement root;

  private XmlDocument(String name, XmlText written) {
    this.name = name;
    this.written = written;
    this.lines = lineStarts(written.text());
    this.root = XmlTree.of(name, written.text());
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
    return new XmlDocument(name, XmlText.of(name, bytes));
  }

  /** Reads a document held as text. */
  public static XmlDocument parse(String name, String text) {
    return new XmlDocument(name, XmlText.of(text));
  }

  /** Reads a document that keeps the way in which it was written down. */
  public static XmlDocument parse(String name, XmlText text) {
    return new XmlDocument(name, text);
  }

  private static int[] lineStarts(String text) {
    return IntStream.concat(
            IntStream.of(0),
            IntStream.range(0, text.length())
                .filter(at -> text.charAt(at) == '\n')
                .map(at -> at + 1))
        .toArray();
  }

  /** How messages call it. */
  public String name() {
    return name;
  }

  /** The text as it was read, without a byte order mark. */
  public String text() {
    return written.text();
  }

  /** The text and how it was written down. */
  public XmlText written() {
    return written;
  }

  /** The root element. */
  public XmlElement root() {
    return root;
  }

  /** Line of a position, counted from 1. */
  public int lineOf(int position) {
    int found = Arrays.binarySearch(lines, position);
    return found >= 0 ? found + 1 : -found - 1;
  }

  /** Puts text at the end of what stands inside an element. */
  public Splice inserting(XmlElement element, String inside) {
    if (!element.selfClosed()) {
      return Splice.insert(element.contentEnd(), inside);
    }
    int slash = element.tagEnd() - "/>".length();
    String end = indentOf(element) + "</" + element.qualifiedName() + ">";
    return new Splice(slash, element.tagEnd(), ">" + lineEnd() + inside + end);
  }

  /** Gives an attribute another value; one that is not there is put behind the others. */
  public Splice setting(XmlElement element, String attribute, String value) {
    return XmlTag.setting(text(), element, attribute, value);
  }

  /**
   * Puts lines behind the last child of an element, as deep as that; {@link #removing} undoes it.
   */
  public Splice appending(XmlElement element, List<String> lines) {
    List<XmlElement> children = element.children();
    if (!children.isEmpty()) {
      return behind(children.get(children.size() - 1), lines);
    }
    String indent = indentOf(element) + "  ";
    String text =
        lines.stream().map(line -> lineEnd() + indent + line).collect(Collectors.joining());
    return element.selfClosed()
        ? inserting(element, text.substring(lineEnd().length()) + lineEnd())
        : Splice.insert(element.tagEnd(), text);
  }

  /** Puts lines behind an element, as deep as that; {@link #removing} undoes it. */
  public Splice behind(XmlElement element, List<String> lines) {
    String indent = indentOf(element);
    return Splice.insert(
        element.end(),
        lines.stream().map(line -> lineEnd() + indent + line).collect(Collectors.joining()));
  }

  /** Takes an element out, with what separates it from what stands on the line before. */
  public Splice removing(XmlElement element) {
    String before = text().substring(0, element.start());
    String kept = before.stripTrailing();
    boolean begins = before.substring(kept.length()).contains("\n");
    return new Splice(begins ? kept.length() : element.start(), element.end(), "");
  }

  /** What stands before an element on its line, where that is blank. */
  public String indentOf(XmlElement element) {
    String line = text().substring(0, element.start());
    String before = line.substring(line.lastIndexOf('\n') + 1);
    return before.isBlank() ? before : "";
  }

  /** How its lines end. */
  public String lineEnd() {
    return text().contains("\r\n") ? "\r\n" : "\n";
  }

  /** The text with splices applied, written down as it was. */
  public XmlText with(List<Splice> splices) {
    return written.with(Splice.apply(text(), splices));
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

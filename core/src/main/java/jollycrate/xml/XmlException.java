package jollycrate.xml;

import javax.xml.stream.XMLStreamException;

/** A document that is not well-formed XML, or larger than is read, with its place. */
public final class XmlException extends RuntimeException {
  private static final long serialVersionUID = 1L;
  private final String document;
  private final int line;
  private final int column;

  /**
   * @param document name of the document as people know it
   * @param line counted from 1
   * @param column counted from 1
   */
  public XmlException(String document, int line, int column, String reason) {
    super(document + ":" + line + ":" + column + ": " + reason);
    this.document = document;
    this.line = line;
    this.column = column;
  }

  /** What a parser says, without the places that it says twice. */
  static XmlException of(String document, XMLStreamException e) {
    int line = e.getLocation() == null ? 1 : Math.max(1, e.getLocation().getLineNumber());
    int column = e.getLocation() == null ? 1 : Math.max(1, e.getLocation().getColumnNumber());
    String reason = String.valueOf(e.getMessage()).lines().findFirst().orElse("not XML");
    return new XmlException(document, line, column, reason.strip());
  }

  /** Name of the document as people know it. */
  public String document() {
    return document;
  }

  /** Line of the fault, counted from 1. */
  public int line() {
    return line;
  }

  /** Column of the fault, counted from 1. */
  public int column() {
    return column;
  }
}

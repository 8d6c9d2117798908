package jollycrate.xml;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/** An element with its positions in the text it was read from. */
public final class XmlElement {
  private final String name;
  private final int start;
  private final int tagEnd;
  private final List<XmlAttribute> attributes;
  private final List<XmlElement> children = new ArrayList<>();
  private final StringBuilder text = new StringBuilder();
  private final boolean empty;
  private int contentEnd;
  private int end;

  XmlElement(String name, int start, int tagEnd, List<XmlAttribute> attributes, boolean empty) {
    this.name = name;
    this.start = start;
    this.tagEnd = tagEnd;
    this.attributes = List.copyOf(attributes);
    this.empty = empty;
  }

  void add(XmlElement child) {
    children.add(child);
  }

  void addText(String more) {
    text.append(more);
  }

  /** The end tag; an empty element has none. */
  void close(int endTag, int behindIt) {
    contentEnd = empty ? tagEnd : endTag;
    end = empty ? tagEnd : behindIt;
  }

  /** Name without its prefix. */
  public String name() {
    return name.substring(name.indexOf(':') + 1);
  }

  /** Position of {@code <}. */
  public int start() {
    return start;
  }

  /** Position after the {@code >} of the start tag. */
  public int tagEnd() {
    return tagEnd;
  }

  /** Position of the end tag, or after the tag of an empty element. */
  public int contentEnd() {
    return contentEnd;
  }

  /** Position after the element. */
  public int end() {
    return end;
  }

  /** Whether the element was written as {@code <name/>}. */
  public boolean selfClosed() {
    return empty;
  }

  /** Name as written, with its prefix. */
  public String qualifiedName() {
    return name;
  }

  /** A start tag with other attributes, ended as the one that was written. */
  public String startTag(List<XmlAttribute> others) {
    StringBuilder tag = new StringBuilder("<").append(name);
    for (XmlAttribute attribute : others) {
      tag.append(' ').append(attribute.name()).append("=\"");
      tag.append(XmlDocument.escape(attribute.value())).append('"');
    }
    return tag.append(empty ? "/>" : ">").toString();
  }

  /** Child elements in order. */
  public List<XmlElement> children() {
    return Collections.unmodifiableList(children);
  }

  /** Child elements of one name, in order. */
  public List<XmlElement> children(String childName) {
    return children.stream().filter(child -> child.name().equals(childName)).toList();
  }

  /** The first child of that name. */
  public Optional<XmlElement> child(String childName) {
    return children(childName).stream().findFirst();
  }

  /** Every element of that name below this one, in document order. */
  public List<XmlElement> descendants(String descendantName) {
    List<XmlElement> found = new ArrayList<>();
    collect(descendantName, found);
    return found;
  }

  private void collect(String descendantName, List<XmlElement> found) {
    for (XmlElement child : children) {
      if (child.name().equals(descendantName)) {
        found.add(child);
      }
      child.collect(descendantName, found);
    }
  }

  /** Attributes in order. */
  public List<XmlAttribute> attributes() {
    return attributes;
  }

  /** The attribute of that name. */
  public Optional<XmlAttribute> attribute(String attributeName) {
    return attributes.stream().filter(a -> a.name().equals(attributeName)).findFirst();
  }

  /** Value of an attribute, or the given default. */
  public String value(String attributeName, String otherwise) {
    return attribute(attributeName).map(XmlAttribute::value).orElse(otherwise);
  }

  /** Text directly inside, trimmed. */
  public String text() {
    return text.toString().strip();
  }

  /** Trimmed text of the first child of that name, or the empty string. */
  public String childText(String childName) {
    return child(childName).map(XmlElement::text).orElse("");
  }
}

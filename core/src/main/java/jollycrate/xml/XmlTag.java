package jollycrate.xml;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Edits of one attribute in a start tag. The parser tells where the tag begins and ends and that it
 * is well-formed; within it the grammar of attributes (XML 1.0, productions 10, 40 and 41) leaves
 * only one way to read.
 */
final class XmlTag {
  private static final Pattern ATTRIBUTE =
      Pattern.compile("\\s([^\\s=/>\"']+)\\s*=\\s*(?:\"([^\"]*)\"|'([^']*)')");

  private XmlTag() {}

  static Splice setting(String text, XmlElement element, String attribute, String value) {
    Optional<Splice> there =
        value(text, element, attribute)
            .map(at -> new Splice(at.from(), at.to(), XmlDocument.escape(value)));
    String added = " " + attribute + "=\"" + XmlDocument.escape(value) + "\"";
    return there.orElseGet(() -> Splice.insert(behindAttributes(text, element), added));
  }

  /** Where the value of an attribute stands, without its quotes. */
  private static Optional<Splice> value(String text, XmlElement element, String attribute) {
    Matcher attributes = attributes(text, element);
    while (attributes.find()) {
      if (attributes.group(1).equals(attribute)) {
        int group = attributes.group(2) == null ? 3 : 2;
        return Optional.of(new Splice(attributes.start(group), attributes.end(group), ""));
      }
    }
    return Optional.empty();
  }

  private static int behindAttributes(String text, XmlElement element) {
    int end = element.start() + 1 + element.qualifiedName().length();
    Matcher attributes = attributes(text, element);
    while (attributes.find()) {
      end = attributes.end();
    }
    return end;
  }

  private static Matcher attributes(String text, XmlElement element) {
    int name = element.start() + 1 + element.qualifiedName().length();
    return ATTRIBUTE.matcher(text).region(name, element.tagEnd());
  }
}

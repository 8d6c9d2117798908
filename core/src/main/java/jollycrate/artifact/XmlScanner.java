package jollycrate.artifact;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;

/** Finds the positions of elements and attributes in a text already known to be well-formed. */
final class XmlScanner {
  private static final Map<String, String> PREDEFINED =
      Map.of("amp", "&", "lt", "<", "gt", ">", "quot", "\"", "apos", "'");

  private final String text;
  private final Deque<XmlElement> open = new ArrayDeque<>();
  private XmlElement root;
  private int at;

  XmlScanner(String text) {
    this.text = text;
  }

  XmlElement root() {
    while (at < text.length()) {
      int tag = text.indexOf('<', at);
      if (tag < 0) {
        break;
      }
      addText(text.substring(at, tag), true);
      at = tag;
      next();
    }
    return root;
  }

  private void next() {
    if (text.startsWith("<!--", at)) {
      at = after("-->");
    } else if (text.startsWith("<![CDATA[", at)) {
      int start = at + "<![CDATA[".length();
      at = after("]]>");
      addText(text.substring(start, at - "]]>".length()), false);
    } else if (text.startsWith("<?", at)) {
      at = after("?>");
    } else if (text.startsWith("<!", at)) {
      skipDocumentType();
    } else if (text.startsWith("</", at)) {
      int start = at;
      at = after(">");
      open.pop().close(start, at);
    } else {
      startTag();
    }
  }

  private void startTag() {
    int start = at++;
    String name = word();
    List<XmlAttribute> attributes = new ArrayList<>();
    skipSpace();
    while (text.charAt(at) != '>' && text.charAt(at) != '/') {
      attributes.add(attribute());
      skipSpace();
    }
    boolean empty = text.charAt(at) == '/';
    at = after(">");
    XmlElement element = new XmlElement(name, start, at, attributes);
    if (open.isEmpty()) {
      root = root == null ? element : root;
    } else {
      open.peek().add(element);
    }
    if (!empty) {
      open.push(element);
    }
  }

  private XmlAttribute attribute() {
    String name = word();
    while (text.charAt(at) != '"' && text.charAt(at) != '\'') {
      at++;
    }
    char quote = text.charAt(at);
    int start = ++at;
    at = text.indexOf(quote, at);
    return new XmlAttribute(name, unescape(text.substring(start, at)), start, at++);
  }

  private void skipDocumentType() {
    int depth = 0;
    do {
      char c = text.charAt(at++);
      if (c == '"' || c == '\'') {
        at = text.indexOf(c, at) + 1;
      }
      depth += c == '<' ? 1 : c == '>' ? -1 : 0;
    } while (depth > 0);
  }

  private void addText(String raw, boolean escaped) {
    if (!open.isEmpty()) {
      open.peek().addText(escaped ? unescape(raw) : raw);
    }
  }

  private String word() {
    int start = at;
    while (!Character.isWhitespace(text.charAt(at)) && "=/>".indexOf(text.charAt(at)) < 0) {
      at++;
    }
    return text.substring(start, at);
  }

  private void skipSpace() {
    while (Character.isWhitespace(text.charAt(at))) {
      at++;
    }
  }

  private int after(String end) {
    return text.indexOf(end, at) + end.length();
  }

  private static String unescape(String raw) {
    if (raw.indexOf('&') < 0) {
      return raw;
    }
    StringBuilder plain = new StringBuilder();
    int from = 0;
    for (int amp = raw.indexOf('&'); amp >= 0; amp = raw.indexOf('&', from)) {
      int end = raw.indexOf(';', amp);
      plain.append(raw, from, amp).append(reference(raw.substring(amp + 1, end)));
      from = end + 1;
    }
    return plain.append(raw, from, raw.length()).toString();
  }

  private static String reference(String name) {
    if (name.startsWith("#x")) {
      return Character.toString(Integer.parseInt(name.substring(2), 16));
    }
    if (name.startsWith("#")) {
      return Character.toString(Integer.parseInt(name.substring(1)));
    }
    return PREDEFINED.getOrDefault(name, "&" + name + ";");
  }
}

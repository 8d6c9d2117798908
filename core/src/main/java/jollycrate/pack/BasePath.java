package jollycrate.pack;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.xml.Splice;
import org.jsoup.nodes.Attribute;
import org.jsoup.nodes.Document;
import org.jsoup.nodes.Element;
import org.jsoup.nodes.Range;
import org.jsoup.parser.Parser;

/**
 * Finds in a page or a style sheet what starts from the server's root, so that it can start from
 * the application's. A path changes only when a file is packed that it leads to.
 */
final class BasePath {
  /** The id of the element that settings go to. */
  static final String BLOCK = "jolly-settings";

  private static final Set<String> PATHS =
      Set.of("href", "src", "action", "formaction", "poster", "data", "manifest", "background");
  private static final Set<String> SETS = Set.of("srcset", "imagesrcset");
  private static final Pattern IN_SET = Pattern.compile("(?:^|,)\\s*(/(?!/)\\S*)");
  private static final Pattern IN_STYLE =
      Pattern.compile(
          "/\\*.*?(?:\\*/|\\z)|\\burl\\(\\s*['\"]?(/(?!/)[^)'\"\\s]*)"
              + "|@import\\s+['\"](/(?!/)[^'\"]*)",
          Pattern.DOTALL | Pattern.CASE_INSENSITIVE);

  private final String name;
  private final String text;
  private final String base;
  private final List<Splice> splices = new ArrayList<>();
  private final List<String> told = new ArrayList<>();
  private final List<String> missing = new ArrayList<>();
  private final List<String> left = new ArrayList<>();
  private final String built;
  private final Predicate<String> packed;

  /**
   * @param path context path, {@code /} for the root
   * @param built path that the pages were built for, from {@link #builtFor}; empty for the root
   * @param packed whether a file is packed, by its path inside the application
   */
  BasePath(String name, String text, String path, String built, Predicate<String> packed) {
    this.name = name;
    this.text = text;
    this.base = path.equals("/") ? "" : ascii(path);
    this.built = built;
    this.packed = packed;
  }

  /** The path that a page says it was built for, without a slash at its end; empty for the root. */
  static String builtFor(String page) {
    Element base = Parser.htmlParser().parseInput(page, "").selectFirst("base[href]");
    String href = base == null ? "" : base.attr("href");
    return href.matches("(/[^/?#]+){1,500}/[^/]*") ? href.substring(0, href.lastIndexOf('/')) : "";
  }

  private static String ascii(String path) {
    StringBuilder ascii = new StringBuilder();
    for (byte b : path.getBytes(StandardCharsets.UTF_8)) {
      ascii.append(b < 0 ? String.format("%%%02X", b) : String.valueOf((char) b));
    }
    return ascii.toString();
  }

  /** What was found, as {@code file:line: from -> to}. */
  List<String> told() {
    return told;
  }

  /** Paths that were left as they are written, as {@code file:line: path}. */
  List<String> left() {
    return left;
  }

  /** Paths of assets that are not packed, as {@code file:line: path}. */
  List<String> missing() {
    return missing;
  }

  /** Edits of an HTML page. */
  List<Splice> inPage() {
    for (Element element : parsed().getAllElements()) {
      for (Attribute attribute : element.attributes()) {
        Range range = attribute.sourceRange().valueRange();
        if (range.isTracked() && range.startPos() < range.endPos()) {
          inAttribute(element, attribute.getKey(), range);
        }
      }
      if (element.normalName().equals("style")) {
        inStyle(element.sourceRange().endPos(), contentEnd(element));
      }
    }
    return splices;
  }

  /** Where the end tag of an element with raw text begins. */
  private int contentEnd(Element element) {
    int end = element.endSourceRange().endPos();
    return Math.max(element.sourceRange().endPos(), text.lastIndexOf("</", end - 1));
  }

  private Document parsed() {
    return Parser.htmlParser().setTrackPosition(true).parseInput(text, "");
  }

  private void inAttribute(Element element, String key, Range range) {
    int from = range.startPos();
    String value = text.substring(from, range.endPos());
    if (element.normalName().equals("base") && key.equals("href")) {
      if (value.startsWith("/") && !value.startsWith("//")) {
        change(from, range.endPos(), base + "/");
      }
    } else if (PATHS.contains(key)) {
      prefix(from, value, key.equals("src") || element.normalName().equals("link"));
    } else if (SETS.contains(key)) {
      Matcher matcher = IN_SET.matcher(value);
      while (matcher.find()) {
        prefix(from + matcher.start(1), matcher.group(1), true);
      }
    } else if (key.equals("style")) {
      inStyle(from, range.endPos());
    }
  }

  /** Edits of a style sheet. */
  List<Splice> inStyle() {
    inStyle(0, text.length());
    return splices;
  }

  private void inStyle(int from, int to) {
    Matcher matcher = IN_STYLE.matcher(text).region(from, Math.max(from, to));
    while (matcher.find()) {
      for (int group = 1; group <= matcher.groupCount(); group++) {
        if (matcher.group(group) != null) {
          prefix(matcher.start(group), matcher.group(group), true);
        }
      }
    }
  }

  private void prefix(int at, String path, boolean asset) {
    boolean fromRoot = path.startsWith("/") && !path.startsWith("//");
    boolean placed = !base.isEmpty() && (path.equals(base) || path.startsWith(base + "/"));
    if (!fromRoot || placed || base.isEmpty() && built.isEmpty()) {
      return;
    }
    boolean known = !built.isEmpty() && (path.equals(built) || path.startsWith(built + "/"));
    String inside = known ? path.substring(built.length()) : path;
    boolean stands = packed.test(inside.replaceFirst("[?#].*", "").replaceFirst("^/", ""));
    if (known || stands) {
      change(at, at + path.length(), base + inside);
    }
    if (!stands) {
      String shown = name + ":" + lineOf(at) + ": " + (known ? base + inside : path);
      (asset ? missing : left).add(shown);
    }
  }

  private long lineOf(int position) {
    return 1 + text.substring(0, position).chars().filter(c -> c == '\n').count();
  }

  private void change(int from, int to, String path) {
    String before = text.substring(from, to);
    if (!before.equals(path)) {
      splices.add(new Splice(from, to, path));
      told.add(name + ":" + lineOf(from) + ": " + before + " -> " + path);
    }
  }

  /** Puts settings into the page's block, when it has one. */
  Optional<Splice> settingsBlock(String json) {
    Element block = parsed().getElementById(BLOCK);
    if (block == null || !block.endSourceRange().isTracked()) {
      return Optional.empty();
    }
    return Optional.of(new Splice(block.sourceRange().endPos(), contentEnd(block), json));
  }
}

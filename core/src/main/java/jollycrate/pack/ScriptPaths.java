package jollycrate.pack;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jsoup.nodes.Element;
import org.jsoup.parser.Parser;

/**
 * Finds texts in scripts that start from the server's root: what a request is made to, and names of
 * packed files. They are told and never changed, as nobody can tell what else a text is for.
 */
final class ScriptPaths {
  private static final Pattern TEXT =
      Pattern.compile(
          "(\\b(?:fetch|import|open|EventSource|Request|URL|get|post|put|patch|delete)\\s*\\(\\s*"
              + "(?:['\"](?:GET|POST|PUT|PATCH|DELETE)['\"]\\s*,\\s*)?)?"
              + "(['\"`])(/(?!/)[A-Za-z0-9_][^'\"`\\s<>]{0,200}?)\\2");
  private static final int MOST = 20;

  private ScriptPaths() {}

  /** Those in a script, as {@code file:line: path}; none for an application at the root. */
  static List<String> of(String name, String text, String path, Predicate<String> packed) {
    return path.equals("/") ? List.of() : found(name, text, 1, path, packed);
  }

  /** The same in the scripts that stand in a page. */
  static List<String> inPage(String name, String text, String path, Predicate<String> packed) {
    if (path.equals("/")) {
      return List.of();
    }
    List<String> found = new ArrayList<>();
    Parser parser = Parser.htmlParser().setTrackPosition(true);
    for (Element script : parser.parseInput(text, "").select("script:not([src])")) {
      found.addAll(
          found(name, script.data(), script.sourceRange().end().lineNumber(), path, packed));
    }
    return found;
  }

  private static List<String> found(
      String name, String text, int firstLine, String path, Predicate<String> packed) {
    List<String> found = new ArrayList<>();
    Matcher matcher = TEXT.matcher(text);
    int line = firstLine;
    int counted = 0;
    while (matcher.find() && found.size() < MOST) {
      String asked = matcher.group(3);
      String file = asked.substring(1).replaceFirst("[?#].*", "");
      boolean own = asked.equals(path) || asked.startsWith(path + "/");
      if (!own && (matcher.group(1) != null || file.contains(".") && packed.test(file))) {
        line +=
            (int) text.substring(counted, matcher.start()).chars().filter(c -> c == '\n').count();
        counted = matcher.start();
        found.add(name + ":" + line + ": " + asked);
      }
    }
    return found;
  }
}

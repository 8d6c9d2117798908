package jollycrate.service;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.server.Splicer;

/**
 * Puts one server into an {@code upstream} in place of those that stand there. They stay in a
 * comment behind it, from which they come back byte for byte.
 */
final class UpstreamSplicer implements Splicer {
  private static final String MARK = "# Jolly Crate, instead of: ";
  private static final String MARK_WITH_END = "# Jolly Crate, with a line end, instead of: ";
  private static final Pattern SPLICE =
      Pattern.compile(
          "(?:server (\\S+); )?(?:"
              + Pattern.quote(MARK)
              + "([^\\n]*)|"
              + Pattern.quote(MARK_WITH_END)
              + "([^\\n]*)\\n)");

  @Override
  public Optional<String> find(String text, String key) {
    return Upstream.in(text, key)
        .map(upstream -> SPLICE.matcher(text.substring(upstream.open(), upstream.close())))
        .filter(Matcher::find)
        .map(splice -> splice.group(1));
  }

  @Override
  public String insert(String text, String key, String fragment) {
    if (Upstream.fault(text, key).isPresent()) {
      return text;
    }
    String original = remove(text, key);
    List<Upstream.Range> servers = Upstream.in(original, key).orElseThrow().servers();
    StringBuilder edited = new StringBuilder(original);
    for (int i = servers.size() - 1; i >= 0; i--) {
      String server = i == 0 ? "server " + fragment + "; " : "";
      Upstream.Range range = servers.get(i);
      int end = blanksBehind(original, range.to());
      boolean endsLine = end == original.length() || original.charAt(end) == '\n';
      String kept = original.substring(range.from(), endsLine ? end : range.to());
      String splice =
          endsLine ? server + MARK + escaped(kept) : server + MARK_WITH_END + escaped(kept) + "\n";
      edited.replace(range.from(), endsLine ? end : range.to(), splice);
    }
    return edited.toString();
  }

  private static int blanksBehind(String text, int from) {
    int at = from;
    while (at < text.length() && " \t\r".indexOf(text.charAt(at)) >= 0) {
      at++;
    }
    return at;
  }

  @Override
  public String remove(String text, String key) {
    return Upstream.in(text, key).map(upstream -> restored(text, upstream)).orElse(text);
  }

  private static String restored(String text, Upstream upstream) {
    Matcher splice = SPLICE.matcher(text.substring(upstream.open(), upstream.close()));
    String restored =
        splice.replaceAll(
            found ->
                Matcher.quoteReplacement(
                    original(found.group(2) == null ? found.group(3) : found.group(2))));
    return text.substring(0, upstream.open()) + restored + text.substring(upstream.close());
  }

  private static String escaped(String text) {
    return text.replace("\\", "\\\\").replace("\n", "\\n").replace("\r", "\\r");
  }

  private static String original(String escaped) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < escaped.length(); i++) {
      char c = escaped.charAt(i);
      if (c == '\\' && i + 1 < escaped.length()) {
        i++;
        char next = escaped.charAt(i);
        text.append(next == 'n' ? '\n' : next == 'r' ? '\r' : next);
      } else {
        text.append(c);
      }
    }
    return text.toString();
  }
}

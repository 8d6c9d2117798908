package jollycrate.hosting;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.server.Splicer;

/**
 * Lines of a file that somebody else may keep lines in, too, each told by what it begins with. Line
 * ends are kept, also where the last line has none.
 */
public abstract class LineSplicer implements Splicer {
  private static final String NEW_LINE = "\n";
  private static final String LINE_END = "\r?\n";

  private final String between;

  /** What stands between a key, at the beginning of its line, and the rest. */
  protected LineSplicer(String between) {
    this.between = between;
  }

  @Override
  public final Optional<String> find(String text, String key) {
    return Optional.of(line(text, key)).filter(Matcher::find).map(found -> found.group(2));
  }

  @Override
  public final String insert(String text, String key, String fragment) {
    Matcher line = line(text, key);
    if (line.find()) {
      return text.substring(0, line.start(2)) + fragment + text.substring(line.end(2));
    }
    String end = text.contains("\r\n") ? "\r\n" : NEW_LINE;
    return text.isEmpty() || text.endsWith(NEW_LINE)
        ? text + fragment + end
        : text + end + fragment;
  }

  @Override
  public final String remove(String text, String key) {
    Matcher line = line(text, key);
    if (!line.find()) {
      return text;
    }
    boolean ended = line.end(3) > line.start(3);
    return ended
        ? text.substring(0, line.start(2)) + text.substring(line.end(3))
        : text.substring(0, line.start(1));
  }

  /** The end of the line before, the line, and its own end. */
  private Matcher line(String text, String key) {
    return Pattern.compile(
            "(^|"
                + LINE_END
                + ")("
                + Pattern.quote(key + between)
                + "[^\\r\\n]*)("
                + LINE_END
                + "|\\z)")
        .matcher(text);
  }
}

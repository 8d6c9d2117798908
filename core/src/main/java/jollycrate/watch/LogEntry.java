package jollycrate.watch;

import java.util.List;
import jollycrate.server.Placement;

/**
 * One entry of a log.
 *
 * @param source short name of the log it stands in; empty when there is only one
 * @param lines the line that begins it, and those that belong to it, as a stack trace does
 */
public record LogEntry(LogLevel level, String source, List<String> lines) {
  /** Whether it is of that level or a graver one. */
  public boolean isAtLeast(LogLevel other) {
    return level.compareTo(other) <= 0;
  }

  /** Whether it tells of an application: by its context path, or by a class of its packages. */
  public boolean isOf(Placement placement) {
    String path = "[" + placement.route().contextPath() + "]";
    return lines.stream()
        .anyMatch(
            line ->
                line.contains(path)
                    || placement.release().packages().stream()
                        .anyMatch(name -> line.contains(name + ".")));
  }
}

package jollycrate.host;

import java.util.List;
import java.util.stream.Stream;

/** How a program that ran to its end went; exit code -1 when it was ended for taking too long. */
public record Ran(int exit, String output, String errors) {
  /** The last lines of what it said, blank ones left out; what it said of errors comes last. */
  public List<String> lastLines(int most) {
    List<String> lines =
        Stream.concat(output.lines(), errors.lines()).filter(line -> !line.isBlank()).toList();
    return lines.subList(Math.max(0, lines.size() - most), lines.size());
  }

  /** Whether it was ended for taking too long. */
  public boolean tookTooLong() {
    return exit == -1;
  }
}

package jollycrate.delivery;

import com.github.difflib.DiffUtils;
import com.github.difflib.UnifiedDiffUtils;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.host.Content;
import jollycrate.server.Stock;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlException;

/** Unified diffs of the text files that steps change. */
final class TextDiffs {
  static final long MOST_BYTES = 1 << 20;
  private static final int CONTEXT = 3;
  private static final int MOST_BRIEF = 12;

  private TextDiffs() {}

  static List<String> of(Stock stock, StepList steps) {
    return steps.change().stream()
        .flatMap(step -> step.file().stream())
        .flatMap(change -> of(stock, change, steps).stream())
        .toList();
  }

  private static Optional<String> of(Stock stock, Step.FileChange change, StepList steps) {
    Path path = change.path();
    Optional<String> before =
        Optional.ofNullable(stock.texts().get(path)).flatMap(bytes -> text(path, bytes));
    return change.after().isPresent()
        ? after(path, steps.contents().get(path)).map(after -> diff(stock, path, before, after))
        : before.map(text -> diff(stock, path, before, ""));
  }

  private static Optional<String> after(Path path, Content content) {
    return content.bytes(MOST_BYTES).flatMap(bytes -> text(path, bytes));
  }

  /** In UTF-8, or as an XML document says; empty for what is no text. */
  private static Optional<String> text(Path path, byte[] bytes) {
    return Content.text(bytes).or(() -> xml(path, bytes));
  }

  private static Optional<String> xml(Path path, byte[] bytes) {
    try {
      return path.toString().endsWith(".xml")
          ? Optional.of(XmlDocument.parse(path.toString(), bytes).text())
          : Optional.empty();
    } catch (XmlException e) {
      return Optional.empty();
    }
  }

  /** Lines taken out and put in, without those around them. */
  static String brief(String before, String after) {
    List<String> lines =
        DiffUtils.diff(before.lines().toList(), after.lines().toList()).getDeltas().stream()
            .flatMap(
                delta ->
                    Stream.concat(
                        delta.getSource().getLines().stream().map(line -> "- " + line.strip()),
                        delta.getTarget().getLines().stream().map(line -> "+ " + line.strip())))
            .toList();
    if (lines.isEmpty()) {
      return "line ends, or the end of the file";
    }
    String more = "... and " + (lines.size() - MOST_BRIEF) + " lines more";
    return lines.size() <= MOST_BRIEF
        ? String.join("\n", lines)
        : String.join("\n", lines.subList(0, MOST_BRIEF)) + "\n" + more;
  }

  private static String diff(Stock stock, Path path, Optional<String> before, String after) {
    String name = stock.server().shown(path);
    List<String> old = before.map(text -> text.lines().toList()).orElse(List.of());
    List<String> young = after.lines().toList();
    List<String> unified =
        UnifiedDiffUtils.generateUnifiedDiff(
            before.isPresent() ? name : "/dev/null",
            young.isEmpty() ? "/dev/null" : name,
            old,
            DiffUtils.diff(old, young),
            CONTEXT);
    return String.join("\n", unified.stream().map(TextDiffs::header).toList());
  }

  /** An empty side has no first line: its number is that of the line before, which is none. */
  private static String header(String line) {
    return line.startsWith("@@ ")
        ? line.replaceFirst("-1,0 \\+", "-0,0 +").replaceFirst("\\+1,0 @@", "+0,0 @@")
        : line;
  }
}

package jollycrate.delivery;

import com.github.difflib.DiffUtils;
import com.github.difflib.UnifiedDiffUtils;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.host.Content;
import jollycrate.server.Stock;
import jollycrate.step.Step;
import jollycrate.step.StepList;

/** Unified diffs of the text files that steps change. */
final class TextDiffs {
  private static final long MOST_BYTES = 1 << 20;
  private static final int CONTEXT = 3;

  private TextDiffs() {}

  static List<String> of(Stock stock, StepList steps) {
    return steps.change().stream()
        .flatMap(step -> step.file().stream())
        .flatMap(change -> of(stock, change, steps).stream())
        .toList();
  }

  private static Optional<String> of(Stock stock, Step.FileChange change, StepList steps) {
    Path path = change.path();
    Optional<String> before = stock.text(path);
    return change.after().isPresent()
        ? text(steps.contents().get(path)).map(after -> diff(stock, path, before, after))
        : before.map(text -> diff(stock, path, before, ""));
  }

  private static Optional<String> text(Content content) {
    if (content.size() > MOST_BYTES) {
      return Optional.empty();
    }
    try (InputStream in = content.open()) {
      String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
      return text.indexOf('\0') < 0 ? Optional.of(text) : Optional.empty();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
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

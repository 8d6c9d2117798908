package jollycrate.glassfish;

import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import jollycrate.trace.KnownException;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;
import jollycrate.trace.StackTrace;

/** The format in which GlassFish prints. */
final class GlassfishFormat implements LogFormat {
  private static final Pattern HEAD =
      Pattern.compile(
          "^\\[#\\|[^|]*\\|(?<level>[A-Z]+)\\|[^|]*\\|(?<source>[^|]*)\\|[^|]*\\|(?<message>.*)$",
          Pattern.MULTILINE);
  private static final String END = "|#]";

  /** What fails because something failed, and is told before that. */
  private static final List<String> AFTERMATH =
      List.of("Exception during cleanup after start failed", "Cannot stop module ");

  @Override
  public List<LogRecord> records(String log) {
    return LogRecord.in(log, HEAD).stream()
        .filter(record -> AFTERMATH.stream().noneMatch(record.message()::startsWith))
        .map(GlassfishFormat::withoutEnd)
        .toList();
  }

  private static LogRecord withoutEnd(LogRecord record) {
    return new LogRecord(
        record.position(),
        record.level(),
        record.source(),
        withoutEnd(record.message()),
        record.rest().stream()
            .map(GlassfishFormat::withoutEnd)
            .filter(line -> !line.isBlank())
            .toList());
  }

  private static String withoutEnd(String line) {
    return line.endsWith(END) ? line.substring(0, line.length() - END.length()) : line;
  }

  @Override
  public Optional<KnownException> known(LogRecord record, StackTrace.Thrown root) {
    return root.simpleType().equals("BindException")
        ? Optional.of(KnownException.portTaken(""))
        : KnownException.of(root).or(() -> KnownException.listenerIn(root));
  }
}

package jollycrate.tomcat;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.trace.KnownException;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;
import jollycrate.trace.StackTrace;

/** Tomcat's one-line format. */
final class TomcatFormat implements LogFormat {
  private static final Pattern HEAD =
      Pattern.compile(
          "^\\d\\d-\\w{3}-\\d{4} [\\d:.]+ (?<level>\\w+) \\[[^\\]]*\\] (?<source>\\S+)"
              + " (?<message>.*)$",
          Pattern.MULTILINE);
  private static final Pattern LISTENER =
      Pattern.compile("listener instance of class \\[([^\\]]+)]");
  private static final Pattern CONNECTOR = Pattern.compile("-(\\d+)\"?]");

  @Override
  public List<LogRecord> records(String log) {
    return LogRecord.in(log, HEAD);
  }

  @Override
  public Optional<KnownException> known(LogRecord record, StackTrace.Thrown root) {
    return switch (root.simpleType()) {
      case "BindException" -> {
        Matcher port = CONNECTOR.matcher(record.message());
        yield Optional.of(KnownException.portTaken(port.find() ? port.group(1) : ""));
      }
      case "SAXParseException" -> Optional.of(KnownException.brokenDescriptor(root));
      default -> KnownException.of(root).or(() -> listener(record, root));
    };
  }

  private static Optional<KnownException> listener(LogRecord record, StackTrace.Thrown root) {
    Matcher listener = LISTENER.matcher(record.message());
    return listener.find()
        ? Optional.of(KnownException.listener(listener.group(1), root))
        : Optional.empty();
  }
}

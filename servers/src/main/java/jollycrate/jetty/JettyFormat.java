package jollycrate.jetty;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.trace.KnownException;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;
import jollycrate.trace.StackTrace;

/** The format in which Jetty prints by itself. */
final class JettyFormat implements LogFormat {
  private static final Pattern HEAD =
      Pattern.compile(
          "^\\d{4}-\\d\\d-\\d\\d [\\d:.]+:(?<level>[A-Z]+) ?:(?<source>[^:]*):[^:]*: (?<message>.*)$",
          Pattern.MULTILINE);
  private static final Pattern CONTEXT = Pattern.compile("\\S+@[0-9a-f]+\\{[^,]*,([^,]*),.*");
  private static final Pattern BOUND = Pattern.compile("Failed to bind to .*:(\\d+)");

  @Override
  public List<LogRecord> records(String log) {
    return LogRecord.in(log, HEAD);
  }

  @Override
  public String told(LogRecord record) {
    return CONTEXT.matcher(record.message()).replaceFirst("$1");
  }

  @Override
  public Optional<KnownException> known(LogRecord record, StackTrace.Thrown root) {
    return switch (root.simpleType()) {
      case "BindException" -> {
        Matcher port = BOUND.matcher(String.join("\n", record.rest()));
        yield Optional.of(KnownException.portTaken(port.find() ? port.group(1) : ""));
      }
      case "SAXParseException" -> Optional.of(KnownException.brokenDescriptor(root));
      default -> KnownException.of(root).or(() -> KnownException.listenerIn(root));
    };
  }
}

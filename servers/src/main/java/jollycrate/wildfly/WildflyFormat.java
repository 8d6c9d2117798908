package jollycrate.wildfly;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.trace.KnownException;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;
import jollycrate.trace.StackTrace;

/** The format in which WildFly prints. */
final class WildflyFormat implements LogFormat {
  private static final Pattern HEAD =
      Pattern.compile(
          "^(?:\\e\\[[\\d;]*m){0,9}(?:\\d{4}-\\d\\d-\\d\\d )?\\d\\d:[\\d:,]+ (?<level>[A-Z]+) +\\[(?<source>[^\\]]*)\\] \\([^)]*\\)"
              + " (?<message>.*)$",
          Pattern.MULTILINE);
  private static final Pattern FAILED_SERVICE =
      Pattern.compile("MSC000001: Failed to start service [^\"]*\"([^\"]+)\".*");
  private static final Pattern LACKING =
      Pattern.compile("WFLYCTL0412: .*\"jboss\\.naming\\.context\\.java\\.([^\"]+)\"");
  private static final Pattern MODULE = Pattern.compile(" from \\[Module .*");
  private static final Pattern DESCRIPTOR =
      Pattern.compile(".*Failed to parse XML descriptor \"?([^\" ]+)\"? at \\[(\\d+),(\\d+)\\].*");

  @Override
  public List<LogRecord> records(String log) {
    return LogRecord.in(log, HEAD).stream().map(LogRecord::traced).toList();
  }

  @Override
  public String told(LogRecord record) {
    Matcher service = FAILED_SERVICE.matcher(record.message());
    if (service.matches()) {
      return service.group(1) + " did not start";
    }
    return record.rest().stream()
        .map(LACKING::matcher)
        .filter(Matcher::find)
        .findFirst()
        .map(lacking -> "nothing is there by the name " + name(lacking.group(1)))
        .orElse(record.message());
  }

  /** As it is written where it is asked for. */
  private static String name(String service) {
    int own = service.lastIndexOf("java:");
    return (own < 0 ? "java:" + service : service.substring(own)).replace('.', '/');
  }

  @Override
  public Optional<KnownException> known(LogRecord record, StackTrace.Thrown root) {
    return switch (root.simpleType()) {
      case "BindException" -> Optional.of(KnownException.portTaken(""));
      case "XMLStreamException", "WstxParsingException" ->
          Optional.of(KnownException.brokenDescriptor(root));
      default -> plain(root);
    };
  }

  /** Behind the name of a class that is missing it says where it looked. */
  private static Optional<KnownException> plain(StackTrace.Thrown root) {
    String message = MODULE.matcher(root.message()).replaceFirst("");
    return KnownException.of(new StackTrace.Thrown(root.type(), message, root.frames()))
        .or(() -> KnownException.listenerIn(root))
        .or(() -> told(root));
  }

  private static Optional<KnownException> told(StackTrace.Thrown root) {
    Matcher place = DESCRIPTOR.matcher(root.message());
    return place.matches()
        ? Optional.of(
            new KnownException(
                place.group(1) + ":" + place.group(2) + ":" + place.group(3) + " cannot be read",
                "Fix the descriptor there"))
        : Optional.empty();
  }
}

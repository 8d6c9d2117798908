package jollycrate.liberty;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.trace.KnownException;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;
import jollycrate.trace.StackTrace;

/** The format in which an Open Liberty prints when it is told to print like its own log. */
final class LibertyFormat implements LogFormat {
  private static final Pattern HEAD =
      Pattern.compile(
          "^\\[[^\\]]+\\] [0-9a-f]{8} (?<source>\\S+) +(?<level>[A-Z]) (?<message>.*)$",
          Pattern.MULTILINE);
  private static final Map<String, String> LEVELS =
      Map.of("E", "ERROR", "F", "ERROR", "W", "WARNING");
  private static final String INCIDENT = "FFDC";
  private static final Pattern NO_DATA_SOURCE =
      Pattern.compile(
          "CWWJP0013E: .* locate the (\\S+) data source for the (\\S+) persistence unit");
  private static final Pattern PORT_TAKEN = Pattern.compile("CWWKO0221E: .*\\b[Pp]ort (\\d+)\\b.*");

  /** Without those that only tell in which file more is told. */
  @Override
  public List<LogRecord> records(String log) {
    return LogRecord.in(log, HEAD).stream()
        .filter(record -> !record.message().startsWith(INCIDENT))
        .map(
            record ->
                new LogRecord(
                    record.position(),
                    LEVELS.getOrDefault(record.level(), record.level()),
                    record.source(),
                    record.message(),
                    record.traced().rest()))
        .toList();
  }

  @Override
  public Optional<KnownException> known(LogRecord record, StackTrace.Thrown root) {
    Matcher port = PORT_TAKEN.matcher(record.message());
    if (port.matches()) {
      return Optional.of(KnownException.portTaken(port.group(1)));
    }
    return noDataSource(record)
        .or(() -> KnownException.of(root))
        .or(() -> KnownException.listenerIn(root));
  }

  private static Optional<KnownException> noDataSource(LogRecord record) {
    return record.rest().stream()
        .map(NO_DATA_SOURCE::matcher)
        .filter(Matcher::find)
        .findFirst()
        .map(
            lacking ->
                new KnownException(
                    "persistence unit '"
                        + lacking.group(2)
                        + "' finds no data source '"
                        + lacking.group(1)
                        + "'",
                    "Describe it in jolly.toml, and name it so in persistence.xml"));
  }
}

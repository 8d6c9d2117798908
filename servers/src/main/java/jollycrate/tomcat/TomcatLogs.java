package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.server.Cause;
import jollycrate.server.KindLogs;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;
import jollycrate.trace.LoggedFailure;
import jollycrate.trace.PrintedThreads;

/** What a Tomcat prints, and the logs that it writes beside that when it logs as it ships. */
final class TomcatLogs implements KindLogs {
  /** Where servers that we made print to. */
  static final Path USUAL = Path.of("logs", "server.log");

  private static final LogFormat FORMAT = new TomcatFormat();
  private static final String STARTING_THREADS = "main|Catalina-utility-\\d+";
  private static final Pattern DATED = Pattern.compile("(.*)\\.\\d{4}-\\d{2}-\\d{2}\\.log");

  /** Says the same as what it prints. */
  private static final String COPY = "catalina";

  /** The last of each log that is begun anew every day, and what it prints. */
  @Override
  public List<Path> all(Stock stock) {
    Path printed = stock.server().log(USUAL);
    Map<String, Path> dated = new TreeMap<>();
    for (Path file : stock.children().getOrDefault(printed.getParent(), List.of())) {
      Matcher name = DATED.matcher(file.getFileName().toString());
      if (name.matches() && !name.group(1).equals(COPY) && !file.equals(printed)) {
        dated.merge(name.group(1), file, (one, other) -> one.compareTo(other) > 0 ? one : other);
      }
    }
    return Stream.concat(dated.values().stream(), Stream.of(printed)).toList();
  }

  /** Of a server that logs as it ships: what applications say stands in a file of its own. */
  @Override
  public boolean tells(String file) {
    return DATED.matcher(file).matches();
  }

  @Override
  public boolean tellsOfReading(Path file, String log) {
    return FORMAT.records(log).stream()
        .map(LogRecord::message)
        .anyMatch(
            message ->
                message.startsWith("Reloading memory user database [")
                    && message.endsWith("/" + file.getFileName() + "]"));
  }

  @Override
  public Optional<Cause> down(Server server, Placement placement, String log) {
    return new TomcatLog(log).down(placement, server.name());
  }

  @Override
  public Optional<Cause> explain(List<String> packages, String log) {
    return new LoggedFailure(FORMAT, packages).in(log, 0);
  }

  @Override
  public Optional<Cause> stalled(List<String> packages, String printed) {
    return new PrintedThreads(STARTING_THREADS, packages).starting(printed);
  }
}

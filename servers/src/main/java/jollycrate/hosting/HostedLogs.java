package jollycrate.hosting;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.BiFunction;
import jollycrate.server.Cause;
import jollycrate.server.KindLogs;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LoggedFailure;
import jollycrate.trace.PrintedThreads;

/**
 * What a server prints that hosts applications and logs to its standard output.
 *
 * @param format of its records
 * @param startingThreads names of threads that start applications, a regular expression
 * @param reader finds in a log what became of a placement
 */
public record HostedLogs(
    LogFormat format, String startingThreads, BiFunction<String, Placement, PlacementLog> reader)
    implements KindLogs {
  /** Where servers that we made print to. */
  public static final Path USUAL = Path.of("logs", "server.log");

  @Override
  public List<Path> all(Stock stock) {
    return List.of(stock.server().log(USUAL));
  }

  @Override
  public Optional<Cause> explain(List<String> packages, String log) {
    return new LoggedFailure(format, packages).in(log, 0);
  }

  @Override
  public Optional<Cause> stalled(List<String> packages, String printed) {
    return new PrintedThreads(startingThreads, packages).starting(printed);
  }

  @Override
  public Optional<Cause> down(Server server, Placement placement, String log) {
    return reader.apply(log, placement).down(server.name());
  }
}

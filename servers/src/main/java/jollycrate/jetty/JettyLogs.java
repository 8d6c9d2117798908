package jollycrate.jetty;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.server.Cause;
import jollycrate.server.KindLogs;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.trace.LoggedFailure;
import jollycrate.trace.PrintedThreads;

/** What a Jetty prints. */
final class JettyLogs implements KindLogs {
  /** Where servers that we made print to. */
  static final Path USUAL = Path.of("logs", "server.log");

  private static final String STARTING_THREADS = "main|Scanner-\\d+-\\d+";

  @Override
  public List<Path> all(Stock stock) {
    return List.of(stock.server().log(USUAL));
  }

  @Override
  public Optional<Cause> explain(List<String> packages, String log) {
    return new LoggedFailure(JettyLog.FORMAT, packages).in(log, 0);
  }

  @Override
  public Optional<Cause> stalled(List<String> packages, String printed) {
    return new PrintedThreads(STARTING_THREADS, packages).starting(printed);
  }

  @Override
  public Optional<Cause> down(Server server, Placement placement, String log) {
    return new JettyLog(log, placement).down(server.name());
  }
}

package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.server.Cause;
import jollycrate.server.KindLogs;
import jollycrate.server.Stock;

/** The one log of a Tomcat. */
final class TomcatLogs implements KindLogs {
  @Override
  public List<Path> all(Stock stock) {
    return List.of(stock.server().folder().resolve("logs/server.log"));
  }

  @Override
  public Optional<Cause> explain(List<String> packages, String log) {
    return new LoggedFailure(packages).in(log, 0);
  }

  @Override
  public Optional<Cause> stalled(List<String> packages, String printed) {
    return new PrintedThreads(packages).starting(printed);
  }
}

package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import jollycrate.server.Cause;
import jollycrate.server.KindLogs;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** The one log of a Tomcat. */
final class TomcatLogs implements KindLogs {
  /** Where servers that we made print to. */
  static final Path USUAL = Path.of("logs", "server.log");

  private static final Pattern DATED = Pattern.compile(".*\\.\\d{4}-\\d{2}-\\d{2}\\.log");

  @Override
  public List<Path> all(Stock stock) {
    return List.of(stock.server().log(USUAL));
  }

  /** Of a server that logs as it ships: what applications say stands in a file of its own. */
  @Override
  public boolean tells(String file) {
    return DATED.matcher(file).matches();
  }

  @Override
  public Optional<Cause> down(Server server, Placement placement, String log) {
    return new TomcatLog(log).down(placement, server.name());
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

package jollycrate.jetty;

import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.hosting.PlacementLog;
import jollycrate.server.Placement;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;

/** By which records of its log a Jetty tells what became of a placement. */
final class JettyLog extends PlacementLog {
  static final LogFormat FORMAT = new JettyFormat();

  private static final String STARTED = "Started ";
  private static final String STOPPED = "Stopped ";
  private static final String FAILED = "Failed startup of context ";
  private static final String NOT_DEPLOYED = "perform action DEPLOY on ";
  private static final Pattern VIRTUAL_HOST = Pattern.compile("vh=\\[([^\\],]*)");
  private static final String UNAVAILABLE = "a=UNAVAILABLE";

  JettyLog(String log, Placement placement) {
    super(FORMAT, log, placement);
  }

  /**
   * One that failed is told to have started all the same, without being available: why stands in
   * the record before.
   */
  @Override
  protected Optional<End> lastEnd(int fresh) {
    return records.stream()
        .filter(record -> record.position() >= fresh)
        .filter(record -> ends(record) || failed(record))
        .reduce(
            (earlier, later) ->
                failed(earlier) && later.message().contains(UNAVAILABLE) ? earlier : later)
        .map(record -> new End(record, failed(record)));
  }

  @Override
  protected boolean letsGo(LogRecord record) {
    return record.message().startsWith(STOPPED) && isOf(record);
  }

  private boolean ends(LogRecord record) {
    boolean whole =
        record.source().endsWith("ServletContextHandler")
            || record.message().contains("$CoreContextHandler@");
    return record.message().startsWith(STARTED) && whole && isOf(record);
  }

  private boolean failed(LogRecord record) {
    String message = record.message();
    return message.startsWith(FAILED) && isOf(record)
        || message.contains(NOT_DEPLOYED)
            && message.contains("mainPath=" + placement.switchPath() + ",")
        || message.contains(UNAVAILABLE) && ends(record);
  }

  /**
   * Its context path stands behind its display name, and its virtual host further on, where it has
   * one; where it is unpacked tells the release.
   */
  private boolean isOf(LogRecord record) {
    String path = placement.route().contextPath();
    String message = record.message();
    Path unpacked = placement.made().traces().get(0);
    Matcher host = VIRTUAL_HOST.matcher(message);
    return message.contains("," + (path.isEmpty() ? "/" : path) + ",")
        && (!host.find() || answersAt(host.group(1)))
        && (!message.contains(unpacked.getParent() + "/") || message.contains(unpacked + "/"));
  }

  /** Behind the name of a host it says the connector alone, where there is one. */
  private boolean answersAt(String virtualHost) {
    String listener = placement.route().listener();
    String connector = listener.equals(Placement.ADMIN) ? Placement.ADMIN : Placement.MAIN;
    return virtualHost.equals("@" + connector) || virtualHost.equals(listener);
  }
}

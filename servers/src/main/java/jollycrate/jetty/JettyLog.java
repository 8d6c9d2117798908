package jollycrate.jetty;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.app.ContextPath;
import jollycrate.server.Cause;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Sign;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;
import jollycrate.trace.LoggedFailure;

/** Reads from the log what became of a placement. */
final class JettyLog {
  static final LogFormat FORMAT = new JettyFormat();

  private static final String STARTED = "Started ";
  private static final String STOPPED = "Stopped ";
  private static final String FAILED = "Failed startup of context ";
  private static final String NOT_DEPLOYED = "perform action DEPLOY on ";
  private static final Pattern VIRTUAL_HOST = Pattern.compile("vh=\\[([^\\],]*)");
  private static final String UNAVAILABLE = "a=UNAVAILABLE";

  private final String log;
  private final List<LogRecord> records;
  private final Placement placement;

  JettyLog(String log, Placement placement) {
    this.log = log;
    this.records = FORMAT.records(log);
    this.placement = placement;
  }

  Sign sign(Expected expected, Evidence evidence) {
    return expected == Expected.GONE ? gone(evidence) : up(evidence);
  }

  private Sign up(Evidence evidence) {
    if (evidence.ended()) {
      return new Sign.Failed(failure().ended(log));
    }
    Optional<LogRecord> end = lastEnd(evidence.fresh());
    if (end.isEmpty()) {
      return new Sign.Waiting(
          evidence.started() ? "the server to come to " + name() : name() + " to start");
    }
    if (failed(end.get())) {
      return new Sign.Failed(cause(evidence.fresh(), end.get()));
    }
    return evidence.open()
        ? new Sign.Reached()
        : evidence.waitingToListen("the server to open its port");
  }

  /** Why it did not come up when it was started last; empty when it did, or never was. */
  Optional<Cause> down(String server) {
    return lastEnd(0)
        .filter(this::failed)
        .map(end -> cause(0, end))
        .map(cause -> cause.behind(placement.application() + " did not start: "))
        .map(cause -> cause.orNext("Then 'jolly deploy --to " + server + "' starts it again"));
  }

  /** The folder that it was unpacked in goes when it has stopped, not before. */
  private Sign gone(Evidence evidence) {
    if (evidence.switchStands()) {
      return new Sign.Waiting(placement.switchPath() + " to go");
    }
    if (evidence.tracesStand()) {
      return new Sign.Waiting("the server to clear away " + name());
    }
    if (evidence.ended()) {
      return evidence.started() ? new Sign.Failed(failure().ended(log)) : new Sign.Reached();
    }
    boolean stopped =
        records.stream().anyMatch(record -> record.message().startsWith(STOPPED) && isOf(record));
    boolean quiet = evidence.since().compareTo(placement.timing().notice()) > 0;
    boolean begun = lastEnd(0).isPresent();
    boolean letGo = evidence.started() ? !begun && evidence.open() : stopped || quiet;
    return letGo ? new Sign.Reached() : new Sign.Waiting("the server to let go of " + name());
  }

  private LoggedFailure failure() {
    return new LoggedFailure(FORMAT, placement.release().packages());
  }

  private Cause cause(int from, LogRecord end) {
    return failure()
        .in(log.substring(from), from)
        .orElseGet(
            () ->
                new Cause(
                    FORMAT.told(end), "", List.of(), "Read the server's log", end.position()));
  }

  /**
   * The last record that says how a start of it ended. One that failed is told to have started all
   * the same, without being available: why stands in the record before.
   */
  private Optional<LogRecord> lastEnd(int fresh) {
    return records.stream()
        .filter(record -> record.position() >= fresh)
        .filter(record -> ends(record) || failed(record))
        .reduce(
            (earlier, later) ->
                failed(earlier) && later.message().contains(UNAVAILABLE) ? earlier : later);
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

  private String name() {
    return placement.application() + " at " + ContextPath.shown(placement.route().contextPath());
  }
}

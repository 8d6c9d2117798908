package jollycrate.tomcat;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
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
final class TomcatLog {
  /** A deployment that was under way before a switch and has not ended after so long hangs. */
  private static final Duration HANGS_AFTER = Duration.ofSeconds(5);

  private static final LogFormat FORMAT = new TomcatFormat();

  private final String log;
  private final List<LogRecord> records;

  TomcatLog(String log) {
    this.log = log;
    this.records = FORMAT.records(log);
  }

  Sign sign(Placement placement, Expected expected, Evidence evidence) {
    return expected == Expected.GONE ? gone(placement, evidence) : up(placement, evidence);
  }

  private Sign up(Placement placement, Evidence evidence) {
    String name = name(placement);
    if (evidence.ended()) {
      return new Sign.Failed(ended(placement, evidence));
    }
    int begun = lastBegun(placement);
    if (begun < 0 || records.get(begun).position() < evidence.fresh()) {
      boolean busy = begun >= 0 && finished(placement, begun) < 0;
      if (busy && evidence.since().compareTo(HANGS_AFTER) > 0) {
        return new Sign.Failed(
            Cause.of("the server is still busy with the release before", "Restart the server"));
      }
      return new Sign.Waiting(
          evidence.started() ? "the server to come to " + name : "the server to notice " + name);
    }
    int finished = finished(placement, begun);
    if (finished < 0) {
      return new Sign.Waiting(name + " to start");
    }
    Optional<LogRecord> failure =
        failure(placement, records.subList(begun, finished))
            .or(() -> failure(placement, FORMAT.records(behind(evidence))));
    if (failure.isPresent()) {
      return new Sign.Failed(cause(placement, begun, failure.get(), evidence.output()));
    }
    Optional<Cause> wrong = WrongLink.in(records.subList(begun, finished));
    if (wrong.isPresent()) {
      return new Sign.Failed(wrong.get());
    }
    return evidence.open()
        ? new Sign.Reached()
        : evidence.waitingToListen("the server to open its port");
  }

  /** Why it did not come up when it was started last; empty when it did, or never was. */
  Optional<Cause> down(Placement placement, String server) {
    int begun = lastBegun(placement);
    int finished = begun < 0 ? -1 : finished(placement, begun);
    if (finished < 0) {
      return Optional.empty();
    }
    return failure(placement, records.subList(begun, finished))
        .map(failure -> cause(placement, begun, failure, log))
        .map(cause -> cause.behind(placement.application() + " did not start: "))
        .map(cause -> cause.orNext("Then 'jolly deploy --to " + server + "' starts it again"));
  }

  private Sign gone(Placement placement, Evidence evidence) {
    if (evidence.switchStands()) {
      return new Sign.Waiting(placement.switchPath() + " to go");
    }
    if (evidence.tracesStand()) {
      return new Sign.Waiting("the server to clear away " + name(placement));
    }
    if (evidence.ended()) {
      return evidence.started() ? new Sign.Failed(ended(placement, evidence)) : new Sign.Reached();
    }
    long begun = records.stream().filter(record -> begins(placement, record)).count();
    long undeployed = records.stream().filter(record -> undeploys(placement, record)).count();
    boolean quiet = begun == 0 && evidence.since().compareTo(placement.timing().notice()) > 0;
    boolean seen = undeployed > 0 && undeployed >= begun;
    boolean open = !evidence.started() || evidence.open();
    return (seen || quiet || evidence.started() && begun == 0) && open
        ? new Sign.Reached()
        : new Sign.Waiting("the server to let go of " + name(placement));
  }

  private Cause ended(Placement placement, Evidence evidence) {
    return new LoggedFailure(FORMAT, placement.release().packages()).ended(log, evidence.fresh());
  }

  /**
   * @param told the log, with further ones behind it
   */
  private Cause cause(Placement placement, int begun, LogRecord failure, String told) {
    int from = records.get(begun).position();
    return new LoggedFailure(FORMAT, placement.release().packages())
        .in(told.substring(from), from)
        .orElse(
            new Cause(
                failure.message(), "", List.of(), "Read the server's log", failure.position()));
  }

  /** What further logs say since the switch. */
  private static String behind(Evidence evidence) {
    int log = evidence.log().length();
    return evidence.output().length() > log ? evidence.output().substring(log) : "";
  }

  /** A servlet that is loaded at the start and throws leaves its context running without it. */
  private static Optional<LogRecord> failure(Placement placement, List<LogRecord> some) {
    String context = "[" + placement.route().contextPath() + "]";
    return some.stream()
        .filter(LogRecord::isSevere)
        .filter(
            record ->
                record.message().startsWith("Context " + context + " startup failed")
                    || record.message().contains("in web application " + context + " threw load()")
                    || record.message().startsWith("Error deploying deployment descriptor"))
        .findFirst();
  }

  private int lastBegun(Placement placement) {
    for (int i = records.size() - 1; i >= 0; i--) {
      if (begins(placement, records.get(i))) {
        return i;
      }
    }
    return -1;
  }

  private int finished(Placement placement, int begun) {
    for (int i = begun + 1; i < records.size(); i++) {
      String message = records.get(i).message();
      if (message.startsWith("Deployment of deployment descriptor [")
          && message.contains("] has finished in [")
          && names(placement, message)) {
        return i;
      }
    }
    return -1;
  }

  private static boolean begins(Placement placement, LogRecord record) {
    return record.message().startsWith("Deploying deployment descriptor [")
        && names(placement, record.message());
  }

  private static boolean undeploys(Placement placement, LogRecord record) {
    return record.message().equals("Undeploying context [" + placement.route().contextPath() + "]");
  }

  private static boolean names(Placement placement, String message) {
    Path file = placement.switchPath();
    int parts = file.getNameCount();
    return message.contains("/" + file.subpath(parts - 3, parts) + "]");
  }

  private static String name(Placement placement) {
    return placement.application() + " at " + ContextPath.shown(placement.route().contextPath());
  }
}

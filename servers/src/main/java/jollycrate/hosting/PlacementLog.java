package jollycrate.hosting;

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

/** Reads from the log of a server what became of a placement; a kind says by which records. */
public abstract class PlacementLog {
  /** A start that was under way before a switch and has not ended after so long hangs. */
  private static final Duration HANGS_AFTER = Duration.ofSeconds(5);

  /** All that was logged. */
  protected final String log;

  /** The same, record by record. */
  protected final List<LogRecord> records;

  /** What is looked for. */
  protected final Placement placement;

  private final LogFormat format;

  /** Of a log in a format. */
  protected PlacementLog(LogFormat format, String log, Placement placement) {
    this.format = format;
    this.log = log;
    this.records = format.records(log);
    this.placement = placement;
  }

  /**
   * How a start of it ended.
   *
   * @param record that tells
   */
  public record End(LogRecord record, boolean failed) {}

  /**
   * The last end of a start of it.
   *
   * @param fresh position from which on records count
   */
  protected abstract Optional<End> lastEnd(int fresh);

  /** Whether a record tells that a start of it begins; never where a kind does not say so. */
  protected boolean begins(LogRecord record) {
    return false;
  }

  /** Whether a record tells that the server let go of it. */
  protected abstract boolean letsGo(LogRecord record);

  /** Whether a server at rest may have overlooked a switch that was put while it was busy. */
  protected boolean mayOverlook() {
    return false;
  }

  /** Whether the server is at rest, as far as its log tells; it is where a kind does not say. */
  protected boolean rests() {
    return true;
  }

  /**
   * Why something of it stays there until the server is started again, although its switch went;
   * empty where nothing does.
   *
   * @param fresh position from which on records were written after it went
   */
  protected Optional<Cause> lingers(int fresh) {
    return Optional.empty();
  }

  /** Whether what was expected is so. */
  public final Sign sign(Expected expected, Evidence evidence) {
    return expected == Expected.GONE ? gone(evidence) : up(evidence);
  }

  private Sign up(Evidence evidence) {
    if (evidence.ended()) {
      return new Sign.Failed(failure().ended(log, evidence.fresh()));
    }
    Optional<End> end = lastEnd(evidence.fresh());
    if (end.isEmpty() && isBusy(evidence.fresh()) && evidence.since().compareTo(HANGS_AFTER) > 0) {
      return new Sign.Failed(
          Cause.of("the server is still busy with the release before", "Restart the server"));
    }
    if (end.isEmpty()) {
      String what = evidence.started() ? "the server to come to " + name() : name() + " to start";
      return mayOverlook() && !evidence.started() && !isUnderWay()
          ? new Sign.Unnoticed(what)
          : new Sign.Waiting(what);
    }
    if (end.get().failed()) {
      return new Sign.Failed(cause(evidence.fresh(), end.get().record()));
    }
    return evidence.open()
        ? new Sign.Reached()
        : evidence.waitingToListen("the server to open its port");
  }

  /** Whether the last start that began did not end. */
  private boolean isUnderWay() {
    return records.stream()
        .filter(this::begins)
        .reduce((earlier, later) -> later)
        .filter(begun -> lastEnd(begun.position()).isEmpty())
        .isPresent();
  }

  /** Whether a start that began before a position did not end. */
  private boolean isBusy(int fresh) {
    return records.stream()
        .filter(this::begins)
        .reduce((earlier, later) -> later)
        .filter(begun -> begun.position() < fresh && lastEnd(begun.position()).isEmpty())
        .isPresent();
  }

  /** Why it did not come up when it was started last; empty when it did, or never was. */
  public final Optional<Cause> down(String server) {
    return lastEnd(0)
        .filter(End::failed)
        .map(end -> cause(0, end.record()))
        .map(cause -> cause.behind(placement.application() + " did not start: "))
        .map(cause -> cause.orNext("Then 'jolly deploy --to " + server + "' starts it again"));
  }

  private Sign gone(Evidence evidence) {
    if (evidence.switchStands()) {
      return new Sign.Waiting(placement.switchPath() + " to go");
    }
    Optional<Cause> stays = evidence.started() ? Optional.empty() : lingers(evidence.fresh());
    if (stays.isPresent()) {
      return new Sign.Failed(stays.get());
    }
    if (evidence.tracesStand()) {
      return new Sign.Waiting("the server to clear away " + name());
    }
    if (evidence.ended()) {
      return evidence.started()
          ? new Sign.Failed(failure().ended(log, evidence.fresh()))
          : new Sign.Reached();
    }
    boolean seen = records.stream().anyMatch(this::letsGo);
    boolean quiet = evidence.since().compareTo(placement.timing().notice()) > 0 && rests();
    boolean begun = lastEnd(0).isPresent();
    boolean letGo = evidence.started() ? !begun && evidence.open() : seen || quiet;
    return letGo ? new Sign.Reached() : new Sign.Waiting("the server to let go of " + name());
  }

  private LoggedFailure failure() {
    return new LoggedFailure(format, placement.release().packages());
  }

  private Cause cause(int from, LogRecord end) {
    return failure()
        .in(log.substring(from), from)
        .orElseGet(
            () ->
                new Cause(
                    format.told(end), "", List.of(), "Read the server's log", end.position()));
  }

  private String name() {
    return placement.application() + " at " + ContextPath.shown(placement.route().contextPath());
  }
}

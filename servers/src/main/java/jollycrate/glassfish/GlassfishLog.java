package jollycrate.glassfish;

import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.hosting.PlacementLog;
import jollycrate.server.Cause;
import jollycrate.server.Placement;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;

/** By which records of its log a GlassFish tells what became of a placement. */
final class GlassfishLog extends PlacementLog {
  static final LogFormat FORMAT = new GlassfishFormat();

  private static final String BEGINS = "Selecting file ";
  private static final String UP = "[AutoDeploy] Successfully autodeployed : ";
  private static final String FAILED = "[AutoDeploy] Autodeploy failed : ";
  private static final String ABSENT = "File not found : ";
  private static final String UNDEPLOYED = "[AutoDeploy] Successfully autoundeployed : ";

  GlassfishLog(String log, Placement placement) {
    super(FORMAT, log, placement);
  }

  /** A start that began before does not count, nor one at a file that had gone again by then. */
  @Override
  protected Optional<End> lastEnd(int fresh) {
    boolean begun = false;
    boolean absent = false;
    Optional<End> end = Optional.empty();
    for (LogRecord record : records) {
      if (record.position() >= fresh) {
        begun = begun || begins(record);
        absent = !begins(record) && (absent || tells(record, ABSENT));
        boolean failed = tells(record, FAILED);
        if (begun && (tells(record, UP) || failed && !absent)) {
          end = Optional.of(new End(record, failed));
        }
      }
    }
    return end;
  }

  /**
   * What fails is tried again for some seconds; at the end of that the time of the archive that is
   * there by then is noted as done with, though it came in meanwhile, where it is as long as the
   * one that failed ({@code AutodeployRetryManager} goes by lengths).
   */
  @Override
  protected boolean mayOverlook() {
    return true;
  }

  /** Not while a start of it is under way: what comes up then stays, though its archive went. */
  @Override
  protected boolean rests() {
    return records.stream()
        .filter(
            record ->
                Stream.of(BEGINS, UP, FAILED, UNDEPLOYED).anyMatch(what -> tells(record, what)))
        .reduce((earlier, later) -> later)
        .filter(last -> tells(last, BEGINS) || tells(last, UP))
        .isEmpty();
  }

  /** What goes while it is deployed is half registered then, and its name cannot be had again. */
  @Override
  protected Optional<Cause> lingers(int fresh) {
    return records.stream()
        .filter(record -> record.position() >= fresh)
        .filter(record -> Stream.of(BEGINS, FAILED).anyMatch(what -> tells(record, what)))
        .findFirst()
        .filter(first -> tells(first, FAILED))
        .map(
            failed ->
                Cause.of(
                    "it went while the server was deploying it, and half of it stays",
                    "Restart the server"));
  }

  @Override
  protected boolean begins(LogRecord record) {
    return tells(record, BEGINS);
  }

  @Override
  protected boolean letsGo(LogRecord record) {
    return tells(record, UNDEPLOYED);
  }

  private boolean tells(LogRecord record, String what) {
    String message = record.message();
    String archive = "/" + placement.switchPath().getFileName();
    return message.startsWith(what)
        && (message.endsWith(archive)
            || message.endsWith(archive + ".")
            || message.contains(archive + " "));
  }
}

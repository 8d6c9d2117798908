package jollycrate.glassfish;

import java.util.Optional;
import jollycrate.hosting.PlacementLog;
import jollycrate.server.Placement;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;

/** By which records of its log a GlassFish tells what became of a placement. */
final class GlassfishLog extends PlacementLog {
  static final LogFormat FORMAT = new GlassfishFormat();

  private static final String BEGINS = "Selecting file ";
  private static final String UP = "[AutoDeploy] Successfully autodeployed : ";
  private static final String FAILED = "[AutoDeploy] Autodeploy failed : ";
  private static final String UNDEPLOYED = "[AutoDeploy] Successfully autoundeployed : ";

  GlassfishLog(String log, Placement placement) {
    super(FORMAT, log, placement);
  }

  @Override
  protected Optional<End> lastEnd(int fresh) {
    boolean begun = false;
    Optional<End> end = Optional.empty();
    for (LogRecord record : records) {
      if (record.position() >= fresh) {
        begun = begun || begins(record);
        if (begun && (tells(record, UP) || tells(record, FAILED))) {
          end = Optional.of(new End(record, tells(record, FAILED)));
        }
      }
    }
    return end;
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
        && (message.endsWith(archive + ".") || message.contains(archive + " "));
  }
}

package jollycrate.wildfly;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.hosting.PlacementLog;
import jollycrate.server.Placement;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;

/**
 * By which records of its log a WildFly tells what became of a placement. It calls an application
 * by the name of its archive, and says that it was deployed also when it failed: that stands
 * before.
 */
final class WildflyLog extends PlacementLog {
  static final LogFormat FORMAT = new WildflyFormat();

  /** Deployed, put in place of another, or taken out again as it failed. */
  private static final List<String> ENDS =
      List.of("WFLYSRV0010: ", "WFLYSRV0016: ", "WFLYSRV0021: ");

  private static final String BEGINS = "WFLYSRV0027: ";
  private static final String UNDEPLOYED = "WFLYSRV0009: ";
  private static final String ROLLED_BACK = ENDS.get(2);

  WildflyLog(String log, Placement placement) {
    super(FORMAT, log, placement);
  }

  @Override
  protected Optional<End> lastEnd(int fresh) {
    boolean begun = false;
    boolean failed = false;
    Optional<End> end = Optional.empty();
    for (LogRecord record : records) {
      if (record.position() >= fresh && isOf(record)) {
        String message = record.message();
        if (begins(record)) {
          begun = true;
          failed = false;
        } else if (begun && ENDS.stream().anyMatch(message::startsWith)) {
          end = Optional.of(new End(record, failed || message.startsWith(ROLLED_BACK)));
        }
        failed = failed || record.isSevere();
      }
    }
    return end;
  }

  @Override
  protected boolean begins(LogRecord record) {
    return record.message().startsWith(BEGINS) && isOf(record);
  }

  @Override
  protected boolean letsGo(LogRecord record) {
    return record.message().startsWith(UNDEPLOYED) && isOf(record);
  }

  private boolean isOf(LogRecord record) {
    String archive = placement.switchPath().getFileName().toString();
    return record.message().contains("\"" + archive + "\"")
        || record.isSevere()
            && Stream.concat(Stream.of(record.message()), record.rest().stream())
                .anyMatch(line -> names(line, archive));
  }

  /**
   * Its services are called by it, in quotation marks that are themselves written as characters.
   */
  private static boolean names(String line, String archive) {
    return line.contains("\\\"" + archive + "\\\"") || line.contains("\\\"" + archive + "#");
  }
}

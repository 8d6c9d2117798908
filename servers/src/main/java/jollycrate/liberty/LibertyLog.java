package jollycrate.liberty;

import java.util.List;
import java.util.Optional;
import jollycrate.file.Digests;
import jollycrate.hosting.PlacementLog;
import jollycrate.server.Placement;
import jollycrate.trace.LogFormat;
import jollycrate.trace.LogRecord;

/** By which records of its log an Open Liberty tells what became of a placement. */
final class LibertyLog extends PlacementLog {
  static final LogFormat FORMAT = new LibertyFormat();

  private static final String BEGINS = "CWWKZ0018I: ";
  private static final String FROM = "CWWKZ0136I: ";
  private static final String CHANGES = "CWWKG0016I: ";
  private static final List<String> CHANGED = List.of("CWWKG0017I: ", "CWWKG0018I: ");
  private static final String STOPPED = "CWWKZ0009I: ";
  private static final List<String> STARTED = List.of("CWWKZ0001I: ", "CWWKZ0003I: ");

  /** It did not start, it could not be started, it was not updated. */
  private static final List<String> FAILED =
      List.of("CWWKZ0002E: ", "CWWKZ0004E: ", "CWWKZ0012I: ", "CWWKZ0020I: ");

  LibertyLog(String log, Placement placement) {
    super(FORMAT, log, placement);
  }

  /** A servlet that is loaded at the start and throws leaves the application running without it. */
  @Override
  protected Optional<End> lastEnd(int fresh) {
    boolean failed = false;
    boolean other = false;
    Optional<End> end = Optional.empty();
    for (LogRecord record : records) {
      if (record.position() < fresh || !isOf(record)) {
        continue;
      }
      if (begins(record)) {
        failed = false;
        other = false;
      } else if (hasOne(record, List.of(FROM))) {
        other = isOtherRelease(record);
      } else if (!other && hasOne(record, STARTED)) {
        end = Optional.of(new End(record, failed));
      } else if (!other && hasOne(record, FAILED)) {
        end = Optional.of(new End(record, true));
      }
      failed = failed || record.isSevere();
    }
    return end;
  }

  private boolean isOtherRelease(LogRecord record) {
    String ours = "-" + Digests.brief(placement.release().digest()) + ".war ";
    return record.message().contains("/delivered/" + placement.application() + "/")
        && !record.message().contains(ours);
  }

  @Override
  protected boolean begins(LogRecord record) {
    return hasOne(record, List.of(BEGINS)) && isOf(record);
  }

  @Override
  protected boolean letsGo(LogRecord record) {
    return hasOne(record, List.of(STOPPED)) && isOf(record);
  }

  /** A change of its configuration is not done before what it stops or starts is. */
  @Override
  protected boolean rests() {
    return records.stream()
        .filter(record -> hasOne(record, List.of(CHANGES)) || hasOne(record, CHANGED))
        .reduce((earlier, later) -> later)
        .filter(last -> hasOne(last, List.of(CHANGES)))
        .isEmpty();
  }

  private static boolean hasOne(LogRecord record, List<String> codes) {
    return codes.stream().anyMatch(record.message()::startsWith);
  }

  private boolean isOf(LogRecord record) {
    String name = placement.application();
    return record.message().contains("pplication " + name + " ")
        || record.message().contains("pplication " + name + ".")
        || record.message().contains("pplication [" + name + "]")
        || record.message().contains("The " + name + " application ");
  }
}

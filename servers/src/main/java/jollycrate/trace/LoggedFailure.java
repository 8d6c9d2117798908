package jollycrate.trace;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import jollycrate.server.Cause;

/** Finds in a log why something failed: the innermost exception and the application's own frame. */
public final class LoggedFailure {
  private static final int MOST_EVIDENCE = 4;

  private final LogFormat format;
  private final List<String> packages;

  /**
   * In logs of a format.
   *
   * @param packages of the application's own classes
   */
  public LoggedFailure(LogFormat format, List<String> packages) {
    this.format = format;
    this.packages = packages;
  }

  /**
   * The first severe record with an exception, else the first severe one.
   *
   * @param offset of this text in the log that the cause's position counts in
   */
  public Optional<Cause> in(String log, int offset) {
    List<LogRecord> records = format.records(log);
    if (records.isEmpty()) {
      LogRecord all = new LogRecord(0, "", "", "", log.lines().toList());
      return trace(all).isEmpty() ? lastWords(all.rest(), offset) : Optional.of(cause(all, offset));
    }
    Optional<LogRecord> told =
        traced(records, LogRecord::isSevere)
            .or(() -> traced(records, LogRecord::isWarning))
            .or(() -> traced(records, LogRecord::isTroubled))
            .or(() -> records.stream().filter(LogRecord::isSevere).findFirst())
            .or(() -> traced(records, any -> true));
    LogRecord last = records.get(records.size() - 1);
    return told.map(record -> cause(record, offset + record.position()))
        .or(() -> lastWords(last.rest(), offset + last.position()));
  }

  private static Optional<LogRecord> traced(List<LogRecord> records, Predicate<LogRecord> such) {
    return records.stream().filter(such).filter(record -> !trace(record).isEmpty()).findFirst();
  }

  /**
   * Why the server's process ended, by all that it logged.
   *
   * @param fresh where that begins in the text; before it stands what an earlier process logged
   */
  public Cause ended(String log, int fresh) {
    int from = Math.min(fresh, log.length());
    return in(log.substring(from), from)
        .map(seen -> seen.behind("the server's process ended: "))
        .orElseGet(
            () ->
                Cause.of(
                    "the server's process ended", "Fix what its log tells, then deliver again"));
  }

  /** What a Java that did not even start the server said. */
  private static Optional<Cause> lastWords(List<String> said, int position) {
    List<String> words = said.stream().filter(line -> !line.isBlank()).toList();
    List<String> errors =
        words.stream().filter(line -> line.matches(".*\\b[Ee](rror|RROR)\\b.*")).toList();
    List<String> lines =
        (words.size() <= MOST_EVIDENCE || errors.isEmpty() ? words : errors)
            .stream().limit(MOST_EVIDENCE).toList();
    return lines.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Cause(
                String.join(" ", lines),
                "",
                List.of(),
                "Fix 'memory', 'java' or 'java-options' of the server in servers.toml",
                position));
  }

  private Cause cause(LogRecord record, int position) {
    StackTrace trace = trace(record);
    if (trace.isEmpty()) {
      return new Cause(
          format.told(record), "", List.of(), "Read the log around that line", position);
    }
    Optional<KnownException> known = format.known(record, trace.root());
    Optional<String> own = trace.ownFrame(packages, format.serverPackages());
    List<String> why = new ArrayList<>();
    Optional.of(format.told(record).replaceFirst(" threw exception.*", ""))
        .filter(said -> !said.isEmpty() && record.isTelling())
        .ifPresent(why::add);
    trace.chain().stream()
        .map(StackTrace.Thrown::told)
        .distinct()
        .limit(MOST_EVIDENCE)
        .forEach(why::add);
    return new Cause(
        known.map(KnownException::what).orElseGet(trace.root()::told),
        own.orElse(""),
        List.copyOf(why),
        known.map(KnownException::next).orElseGet(() -> next(own)),
        position);
  }

  private static String next(Optional<String> ownFrame) {
    return ownFrame.isPresent()
        ? "Look there first: it is the innermost line of the application's own code"
        : "Read the whole trace in the log";
  }

  private static StackTrace trace(LogRecord record) {
    return StackTrace.in(record.rest());
  }
}

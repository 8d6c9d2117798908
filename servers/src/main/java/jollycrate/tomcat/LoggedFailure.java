package jollycrate.tomcat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.server.Cause;

/** Finds in a log why something failed: the innermost exception and the application's own frame. */
final class LoggedFailure {
  private static final Pattern EXCEPTION =
      Pattern.compile("^(?:Caused by: )?((?:[a-zA-Z_$][\\w$]*\\.)+[A-Z][\\w$]*)(?:: (.*))?$");
  private static final Pattern FRAME = Pattern.compile("^\\s*at (?:[^(]*/)?([^/(]+\\(.*\\))$");
  private static final Pattern FOREIGN =
      Pattern.compile(
          "^(java|javax|jakarta|jdk|sun|com\\.sun|org\\.apache\\.(catalina|coyote|tomcat|naming"
              + "|jasper|juli))\\..*");
  private static final int MOST_EVIDENCE = 4;

  private final List<String> packages;

  LoggedFailure(List<String> packages) {
    this.packages = packages;
  }

  /** One exception of a chain, with the frames below it. */
  private record Thrown(String type, String message, List<String> frames) {
    String simpleType() {
      return type.substring(type.lastIndexOf('.') + 1);
    }

    String told() {
      return message.isEmpty() ? simpleType() : simpleType() + ": " + message;
    }
  }

  /**
   * The first severe record with an exception, else the first severe one.
   *
   * @param offset of this text in the log that the cause's position counts in
   */
  Optional<Cause> in(String log, int offset) {
    List<LogRecord> records = LogRecord.in(log);
    if (records.isEmpty()) {
      return lastWords(log.lines().toList(), offset);
    }
    Optional<LogRecord> told =
        records.stream()
            .filter(LogRecord::isSevere)
            .filter(record -> !chain(record).isEmpty())
            .findFirst()
            .or(
                () ->
                    records.stream()
                        .filter(record -> record.level().equals("WARNING"))
                        .filter(record -> !chain(record).isEmpty())
                        .findFirst())
            .or(() -> records.stream().filter(LogRecord::isSevere).findFirst());
    LogRecord last = records.get(records.size() - 1);
    return told.map(record -> cause(record, offset + record.position()))
        .or(() -> lastWords(last.rest(), offset + last.position()));
  }

  /** What a Java that did not even start the server said. */
  private static Optional<Cause> lastWords(List<String> said, int position) {
    List<String> lines =
        said.stream().filter(line -> !line.isBlank()).limit(MOST_EVIDENCE).toList();
    return lines.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Cause(
                String.join(" ", lines),
                "",
                List.of(),
                "Mend 'memory' or 'java' of the server in servers.toml",
                position));
  }

  private Cause cause(LogRecord record, int position) {
    List<Thrown> chain = chain(record);
    if (chain.isEmpty()) {
      return new Cause(record.message(), "", List.of(), "Read the log there", position);
    }
    Thrown root = chain.get(chain.size() - 1);
    KnownFailure known = KnownFailure.of(record, root.type(), root.message());
    List<String> why = new ArrayList<>();
    why.add(record.message().replaceFirst(" threw exception.*", ""));
    chain.stream().map(Thrown::told).distinct().limit(MOST_EVIDENCE).forEach(why::add);
    return new Cause(
        known.what().isEmpty() ? root.told() : known.what(),
        ownFrame(chain).orElse(""),
        List.copyOf(why),
        known.next(),
        position);
  }

  private Optional<String> ownFrame(List<Thrown> chain) {
    List<String> innermostFirst = new ArrayList<>();
    for (int i = chain.size() - 1; i >= 0; i--) {
      innermostFirst.addAll(chain.get(i).frames());
    }
    return innermostFirst.stream()
        .filter(this::isOwn)
        .findFirst()
        .or(
            () ->
                innermostFirst.stream()
                    .filter(frame -> packages.isEmpty() && !FOREIGN.matcher(frame).matches())
                    .findFirst());
  }

  private boolean isOwn(String frame) {
    int parenthesis = frame.indexOf('(');
    String method = parenthesis < 0 ? frame : frame.substring(0, parenthesis);
    int name = method.lastIndexOf('.');
    int type = name < 0 ? -1 : method.lastIndexOf('.', name - 1);
    return packages.contains(type < 0 ? "" : method.substring(0, type));
  }

  /** Without the announcement of a statement that stands on the next line. */
  private static String tidy(String message) {
    return message.strip().replaceFirst("; SQL statement:$", "");
  }

  private static List<Thrown> chain(LogRecord record) {
    List<Thrown> chain = new ArrayList<>();
    for (String line : record.rest()) {
      Matcher exception = EXCEPTION.matcher(line.strip());
      Matcher frame = FRAME.matcher(line);
      if (exception.matches()) {
        String message = exception.group(2) == null ? "" : tidy(exception.group(2));
        chain.add(new Thrown(exception.group(1), message, new ArrayList<>()));
      } else if (frame.matches() && !chain.isEmpty()) {
        chain.get(chain.size() - 1).frames().add(frame.group(1));
      }
    }
    return chain;
  }
}

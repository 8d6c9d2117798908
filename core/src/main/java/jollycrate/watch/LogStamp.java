package jollycrate.watch;

import java.time.DateTimeException;
import java.time.LocalDateTime;
import java.time.OffsetDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** When a line of a log was written, as it says at its beginning. */
final class LogStamp {
  private static final int NEAR = 80;
  private static final List<LogStamp> KNOWN =
      List.of(
          new LogStamp(
              "\\d{4}-\\d\\d-\\d\\d[T ]\\d\\d:\\d\\d:\\d\\d(?:[.,]\\d{1,9})?",
              "uuuu-MM-dd HH:mm:ss"),
          new LogStamp(
              "\\d\\d-\\w{3}-\\d{4} \\d\\d:\\d\\d:\\d\\d(?:\\.\\d{1,9})?", "dd-MMM-uuuu HH:mm:ss"),
          new LogStamp("\\d\\d/\\w{3}/\\d{4}:\\d\\d:\\d\\d:\\d\\d", "dd/MMM/uuuu:HH:mm:ss"),
          new LogStamp(
              "\\w{3} \\d\\d?, \\d{4} \\d\\d?:\\d\\d:\\d\\d [AP]M", "MMM d, uuuu h:mm:ss a"));
  private static final Pattern ZONE = Pattern.compile("^ ?(Z|[+-]\\d\\d:?\\d\\d)(?!\\d)");

  private final Pattern form;
  private final DateTimeFormatter reader;

  private LogStamp(String form, String pattern) {
    this.form = Pattern.compile(form);
    this.reader =
        new DateTimeFormatterBuilder()
            .appendPattern(pattern)
            .appendOptional(DateTimeFormatter.ofPattern(".SSSSSSSSS"))
            .toFormatter(Locale.ENGLISH);
  }

  /** Of a line, in the time zone of this process; empty when it says none. */
  static Optional<LocalDateTime> of(String line) {
    String begin = line.substring(0, Math.min(NEAR, line.length()));
    return KNOWN.stream().flatMap(known -> known.in(begin).stream()).findFirst();
  }

  private Optional<LocalDateTime> in(String line) {
    Matcher matcher = form.matcher(line);
    if (!matcher.find()) {
      return Optional.empty();
    }
    try {
      LocalDateTime written = LocalDateTime.parse(nanoseconds(matcher.group()), reader);
      Matcher zone = ZONE.matcher(line.substring(matcher.end()));
      return Optional.of(zone.find() ? here(written, zone.group(1)) : written);
    } catch (DateTimeException noDate) {
      return Optional.empty();
    }
  }

  /** With a blank before the time, and nine digits behind the seconds if any. */
  private static String nanoseconds(String stamp) {
    String plain = stamp.replace('T', ' ').replace(',', stamp.matches("\\w{3} .*") ? ',' : '.');
    int dot = plain.lastIndexOf('.');
    return dot < 0 ? plain : (plain + "000000000").substring(0, dot + 10);
  }

  private static LocalDateTime here(LocalDateTime written, String zone) {
    String full = zone.replaceFirst("^([+-]\\d\\d)(\\d\\d)$", "$1:$2");
    return OffsetDateTime.of(written, ZoneOffset.of(full))
        .atZoneSameInstant(ZoneId.systemDefault())
        .toLocalDateTime();
  }
}

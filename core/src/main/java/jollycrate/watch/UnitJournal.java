package jollycrate.watch;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import jollycrate.app.Unit;
import jollycrate.host.HostException;
import jollycrate.host.Ran;

/**
 * What the unit of a server prints, as the service manager keeps it (systemd-journald). Places in
 * it are times, in microseconds since 1970 by the clock of the server's machine.
 */
final class UnitJournal {
  private static final Duration LIMIT = Duration.ofSeconds(20);
  private static final Duration SETTLES = Duration.ofMillis(300);
  private static final long MICROS = 1_000_000;

  /** As much as tells of one start: older ones are none of its causes. */
  private static final String MOST_LINES = "5000";

  private final Site site;
  private final Unit unit;

  UnitJournal(Site site, Unit unit) {
    this.site = site;
    this.unit = unit;
  }

  /** How messages call it. */
  static String name(Unit unit) {
    return "journal of " + unit.name();
  }

  /**
   * Its end now. All that was printed before is in it by then; who may not ask for that gives it a
   * moment.
   */
  long end() {
    if (run(List.of("journalctl", "--sync")).exit() != 0) {
      site.time().pause(SETTLES);
    }
    return clock();
  }

  /** The time of the machine where the unit runs, in whole seconds where it tells no more. */
  private long clock() {
    String told = run(List.of("date", "+%s%6N")).output().strip();
    if (told.matches("\\d{16}")) {
      return Long.parseLong(told);
    }
    String seconds = run(List.of("date", "+%s")).output().strip();
    if (!seconds.matches("\\d{1,12}")) {
      throw new HostException("Cannot tell the time on " + site.host().name() + ": " + seconds);
    }
    return Long.parseLong(seconds) * MICROS;
  }

  /**
   * All that was printed since.
   *
   * @throws HostException when it may not be read
   */
  String since(long place) {
    return place <= 0
        ? read(List.of("--boot", "--lines", MOST_LINES))
        : read(List.of("--since", time(place)));
  }

  /** What was printed from one place to another. */
  String between(long place, long end) {
    return read(List.of("--since", time(place), "--until", time(end)));
  }

  /** The last lines up to a place. */
  String last(int lines, long end) {
    return read(List.of("--until", time(end), "--lines", "" + lines));
  }

  private static String time(long place) {
    return String.format(Locale.ROOT, "@%d.%06d", place / MICROS, place % MICROS);
  }

  private String read(List<String> more) {
    List<String> command = new ArrayList<>(unit.journal());
    command.addAll(more);
    Ran ran = run(command);
    if (ran.exit() != 0) {
      throw new HostException(
          "Cannot read the "
              + name(unit)
              + ": "
              + ran.errors().strip()
              + ". Add this user to the group systemd-journal");
    }
    return ran.output();
  }

  private Ran run(List<String> command) {
    return site.host()
        .processes()
        .run(command, site.server().folder(), site.host().environment(), "", LIMIT);
  }
}

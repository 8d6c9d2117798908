package jollycrate.pack;

import java.time.Duration;
import java.time.LocalDateTime;

/**
 * The times of entries, in the form of MS-DOS (APPNOTE 6.3.10, section 4.4.6). Servers make the
 * validators of a page (RFC 9110, section 8.8) from its size and time, so another content must have
 * another time; and the same content the same, so that an archive can be made again byte for byte.
 * So the time is told by the checksum, going back from the latest.
 */
final class EntryTimes {
  private static final LocalDateTime FIRST = LocalDateTime.of(1980, 1, 1, 0, 0);
  private static final int STEP_SECONDS = 2;
  private static final long MOST_STEPS = 1L << 28;

  private final LocalDateTime latest;
  private final long steps;

  EntryTimes(LocalDateTime latest) {
    this.latest = latest;
    long room = Duration.between(FIRST, latest).toSeconds() / STEP_SECONDS;
    this.steps = Math.max(1, Math.min(MOST_STEPS, room));
  }

  /** The time of an entry with that CRC-32. */
  int of(long crc) {
    LocalDateTime time = latest.minusSeconds(STEP_SECONDS * ((crc & 0xFFFFFFFFL) % steps));
    return (time.getYear() - FIRST.getYear()) << 25
        | time.getMonthValue() << 21
        | time.getDayOfMonth() << 16
        | time.getHour() << 11
        | time.getMinute() << 5
        | time.getSecond() / STEP_SECONDS;
  }
}

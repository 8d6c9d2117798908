package jollycrate.app;

import java.time.Duration;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Lengths of time as people write them: {@code 800ms}, {@code 5s}, {@code 2m}, {@code 1h}. */
public final class Durations {
  private static final Pattern FORM = Pattern.compile("(\\d{1,7})\\s*(ms|s|m|h)");

  private Durations() {}

  /** Empty when the text is none. */
  public static Optional<Duration> parse(String text) {
    Matcher matcher = FORM.matcher(text);
    if (!matcher.matches()) {
      return Optional.empty();
    }
    long amount = Long.parseLong(matcher.group(1));
    return Optional.of(
        switch (matcher.group(2)) {
          case "ms" -> Duration.ofMillis(amount);
          case "s" -> Duration.ofSeconds(amount);
          case "m" -> Duration.ofMinutes(amount);
          default -> Duration.ofHours(amount);
        });
  }
}

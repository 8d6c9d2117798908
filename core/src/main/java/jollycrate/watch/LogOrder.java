package jollycrate.watch;

import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Predicate;

/** Puts entries of several logs in the order in which they were written, as their stamps tell. */
final class LogOrder implements Consumer<LogEntry> {
  private final Consumer<LogEntry> found;
  private final Predicate<LogEntry> wanted;
  private final List<Stamped> held = new ArrayList<>();
  private final Map<String, LocalDateTime> last = new HashMap<>();
  private Optional<String> leading = Optional.empty();

  /** An entry without a stamp of its own was written when the one before it in its log was. */
  private record Stamped(LocalDateTime at, LogEntry entry) {}

  LogOrder(Consumer<LogEntry> found, Predicate<LogEntry> wanted) {
    this.found = found;
    this.wanted = wanted;
  }

  /** Passes over what other logs hold that is older than the first entry of this one. */
  void begin(String source) {
    leading = Optional.of(source);
  }

  @Override
  public void accept(LogEntry entry) {
    LocalDateTime at =
        LogStamp.of(entry.lines().get(0))
            .orElseGet(() -> last.getOrDefault(entry.source(), LocalDateTime.MIN));
    last.put(entry.source(), at);
    held.add(new Stamped(at, entry));
  }

  /** Tells of all that was held back so far. */
  void flush() {
    LocalDateTime from =
        leading
            .flatMap(
                source ->
                    held.stream()
                        .filter(one -> one.entry.source().equals(source))
                        .map(Stamped::at)
                        .findFirst())
            .orElse(LocalDateTime.MIN);
    held.stream()
        .filter(one -> !one.at.isBefore(from))
        .sorted(Comparator.comparing(Stamped::at))
        .map(Stamped::entry)
        .filter(wanted)
        .forEach(found);
    if (!held.isEmpty()) {
      leading = Optional.empty();
    }
    held.clear();
  }
}

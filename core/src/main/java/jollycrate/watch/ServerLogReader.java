package jollycrate.watch;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.function.BooleanSupplier;
import java.util.function.Consumer;
import java.util.function.Predicate;
import jollycrate.host.HostException;
import jollycrate.host.LineCutException;
import jollycrate.server.LogPlace;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.stock.ProcessRecord;

/** Reads what a server and its applications print. */
public final class ServerLogReader {
  private static final Duration LIST_AGAIN = Duration.ofSeconds(3);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(200);
  private static final long NEAR_THE_END = 64 << 10;
  private static final int LAST_LINES = 500;

  private final Site site;
  private final LogOrder order;
  private final LogTail tail;
  private final Optional<UnitJournal> journal;
  private final LogEntries printed;
  private long journalRead;
  private List<Path> logs = List.of();
  private Instant listed = Instant.EPOCH;

  /**
   * Of one server.
   *
   * @param wanted of which entries it is told
   */
  public ServerLogReader(Site site, Consumer<LogEntry> found, Predicate<LogEntry> wanted) {
    this.site = site;
    this.order = new LogOrder(found, wanted);
    this.tail = new LogTail(site.files(), order);
    this.journal = site.journal();
    this.printed = new LogEntries("journal", order);
  }

  /** Begins where the server or its program was started last. */
  public ServerLogReader sinceStart() {
    Stock stock = site.stockTaker().take(List.of());
    if (site.traits().hosts()) {
      long begin = site.stockTaker().record().map(ProcessRecord::log).orElse(0L);
      if (journal.isPresent()) {
        journalRead = begin;
      } else {
        tail.from(site.log(), begin);
        order.begin(LogTail.source(site.log()));
      }
      return this;
    }
    ends(stock).forEach(file -> tail.from(file, site.files().facts(file).size()));
    String events = LogSlice.since(site, new LogPlace(site.log(), 0)).text();
    for (Standing.Owner owner : stock.standing().applications()) {
      site.kind()
          .logs()
          .output(site.files(), site.server(), owner.placement(), events)
          .ifPresent(this::beginAt);
    }
    return this;
  }

  private void beginAt(LogPlace place) {
    tail.from(place.file(), place.offset());
    LogTail.behind(site.files(), place.file()).forEach(later -> tail.from(later, 0));
  }

  /** Passes over all that stands there. */
  public void skip() {
    journal.ifPresent(its -> journalRead = its.end());
    ends(site.stockTaker().take(List.of()))
        .forEach(file -> tail.from(file, site.files().facts(file).size()));
  }

  /** Begins not far from the end, in the part before the last one if need be. */
  public ServerLogReader nearTheEnd() {
    journal.ifPresent(
        its -> {
          journalRead = its.end();
          its.last(LAST_LINES, journalRead).lines().forEach(printed::line);
        });
    Stock stock = site.stockTaker().take(List.of());
    List<Path> logs = site.kind().logs().all(stock);
    for (Path end : ends(stock)) {
      long size = site.files().facts(end).size();
      tail.from(end, lineAt(end, size - NEAR_THE_END));
      if (size < NEAR_THE_END) {
        logs.stream()
            .filter(part -> !part.equals(end) && LogTail.end(part).equals(end))
            .max(Comparator.comparingInt(LogTail::number))
            .ifPresent(
                part -> {
                  long before = site.files().facts(part).size();
                  tail.from(part, lineAt(part, before - (NEAR_THE_END - size)));
                });
      }
    }
    return this;
  }

  /** The first line that begins at an offset or behind it. */
  private long lineAt(Path file, long offset) {
    if (offset <= 0) {
      return 0;
    }
    byte[] bytes = site.files().read(file, offset - 1, (int) NEAR_THE_END);
    for (int i = 0; i < bytes.length; i++) {
      if (bytes[i] == '\n') {
        return offset + i;
      }
    }
    return offset;
  }

  /** Which files there are is looked at now and then; what is added to them, each time. */
  private List<Path> logs() {
    Instant now = site.time().now();
    if (now.isAfter(listed.plus(LIST_AGAIN))) {
      logs = site.kind().logs().all(site.stockTaker().take(List.of()));
      listed = now;
    }
    return logs;
  }

  private List<Path> ends(Stock stock) {
    return site.kind().logs().all(stock).stream().map(LogTail::end).distinct().toList();
  }

  private void readJournal(UnitJournal its) {
    long end = its.end();
    its.between(journalRead, end).lines().forEach(printed::line);
    printed.flush();
    journalRead = end;
  }

  /** Tells of all that stands there. */
  public void read() {
    journal.ifPresent(this::readJournal);
    tail.read(logs());
    tail.flush();
    order.flush();
  }

  /** A file that is renamed just now, or a line that is cut, is there again at the next look. */
  private void readOrTryAgain() {
    try {
      read();
    } catch (LineCutException lasting) {
      throw lasting;
    } catch (HostException passing) {
      listed = Instant.EPOCH;
    }
  }

  /** Tells of all that stands there and is still to come, until it is enough. */
  public void follow(BooleanSupplier enough) {
    while (!enough.getAsBoolean()) {
      readOrTryAgain();
      site.time().pause(LOOK_AGAIN);
    }
  }
}

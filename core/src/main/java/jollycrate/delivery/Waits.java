package jollycrate.delivery;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.host.HostProcesses;
import jollycrate.server.Cause;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Running;
import jollycrate.server.Sign;
import jollycrate.server.Stock;

/** Watches for facts about a placement, each with a deadline. */
final class Waits {
  /** Longest time for a server to start, apart from its applications. */
  static final Duration SERVER_STARTS_WITHIN = Duration.ofSeconds(60);

  private static final Duration GOES_WITHIN = Duration.ofSeconds(30);
  private static final Duration PRINTS_WITHIN = Duration.ofSeconds(3);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(40);
  private static final int MOST_LOG_BYTES = 32 << 20;

  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;

  Waits(Site site, Progress progress, Interrupts interrupts) {
    this.site = site;
    this.progress = progress;
    this.interrupts = interrupts;
  }

  /**
   * Where to look.
   *
   * @param mark end of the log just before the switch
   * @param fresh end of the log when nothing older could come any more; not before the mark
   * @param started whether the server was started since
   */
  record From(long mark, long fresh, Instant since, boolean started) {}

  /** Waits until what is expected is so; the cause when it is not to be. */
  Optional<Cause> until(Stock stock, Placement placement, Expected expected, From from) {
    Duration limit = limit(placement, expected, from.started());
    Instant until = site.time().now().plus(limit);
    while (true) {
      interrupts.obey();
      Evidence evidence = evidence(placement, from);
      Sign sign = site.kind().sign(stock, placement, expected, evidence);
      if (sign instanceof Sign.Reached) {
        return Optional.empty();
      }
      if (sign instanceof Sign.Failed failed) {
        Cause cause = located(failed.cause(), from.mark());
        return Optional.of(evidence.alive() ? cause : cause.with(othersOnItsPorts()));
      }
      String what = ((Sign.Waiting) sign).what();
      if (site.time().now().isAfter(until)) {
        return Optional.of(tooLate(what, limit, evidence, placement, from));
      }
      progress.waitingFor(what);
      site.time().pause(LOOK_AGAIN);
    }
  }

  /** Who listens on the ports of a server that does not run. */
  List<String> othersOnItsPorts() {
    List<String> others = new ArrayList<>();
    Stream.concat(Stream.of(site.server().http()), site.server().admin().stream())
        .flatMap(port -> site.host().processes().listening(port).stream())
        .forEach(
            found ->
                others.add(
                    "port "
                        + found.port()
                        + " is held by "
                        + found.program()
                        + " (process "
                        + found.pid()
                        + ")"));
    return others;
  }

  private Cause tooLate(
      String what, Duration limit, Evidence evidence, Placement placement, From from) {
    Cause cause =
        Cause.of(
            "waited " + limit.toSeconds() + " s for " + what + ", in vain",
            "Look at what it does while it starts, or raise 'starts-within' in [app]");
    return site.kind()
        .explain(placement.packages(), evidence.log())
        .map(seen -> cause.with(located(seen, from.mark()).why()))
        .or(() -> stalled(placement, cause))
        .orElse(cause);
  }

  /** Asks the process what it is doing, and finds the application in it. */
  private Optional<Cause> stalled(Placement placement, Cause cause) {
    Optional<Running> running = site.stockTaker().running();
    if (running.isEmpty()) {
      return Optional.empty();
    }
    long mark = site.logEnd();
    site.host().processes().signal(running.get().identity(), HostProcesses.Signal.QUIT);
    Instant until = site.time().now().plus(PRINTS_WITHIN);
    Optional<Cause> found = Optional.empty();
    while (found.isEmpty() && site.time().now().isBefore(until)) {
      site.time().pause(LOOK_AGAIN);
      found = site.kind().stalled(placement.packages(), logSince(mark));
    }
    return found
        .map(seen -> located(seen, mark))
        .map(seen -> new Cause(cause.what(), seen.where(), seen.why(), cause.next(), -1));
  }

  private static Duration limit(Placement placement, Expected expected, boolean started) {
    Duration act = expected == Expected.UP ? placement.startsWithin() : GOES_WITHIN;
    return act.plus(placement.notice()).plus(started ? SERVER_STARTS_WITHIN : Duration.ZERO);
  }

  private Evidence evidence(Placement placement, From from) {
    byte[] log = log(from.mark());
    int fresh = (int) Math.min(log.length, Math.max(0, from.fresh() - from.mark()));
    Optional<Running> running = site.stockTaker().running();
    boolean listening =
        running.isPresent()
            && (!from.started()
                || site.host()
                    .processes()
                    .listening(placement.base().getPort())
                    .filter(found -> found.pid() == running.get().identity().pid())
                    .isPresent());
    String old = new String(log, 0, fresh, StandardCharsets.UTF_8);
    String recent = new String(log, fresh, log.length - fresh, StandardCharsets.UTF_8);
    return new Evidence(
        old + recent,
        old.length(),
        Duration.between(from.since(), site.time().now()),
        from.started(),
        running.isPresent(),
        listening,
        site.files().facts(placement.switchPath()).exists(),
        site.files().facts(placement.traces()).stream().anyMatch(trace -> trace.exists()));
  }

  private byte[] log(long from) {
    return site.files().read(site.log(), from, MOST_LOG_BYTES);
  }

  String logSince(long mark) {
    return new String(log(mark), StandardCharsets.UTF_8);
  }

  /** The cause with the line of the log that tells it. */
  Cause located(Cause cause, long mark) {
    if (cause.logPosition() < 0) {
      return cause;
    }
    byte[] before = site.files().read(site.log(), 0, (int) Math.min(mark, MOST_LOG_BYTES));
    String inside = logSince(mark);
    long line = 1;
    for (byte b : before) {
      line += b == '\n' ? 1 : 0;
    }
    int position = Math.min(cause.logPosition(), inside.length());
    line += inside.substring(0, position).chars().filter(c -> c == '\n').count();
    List<String> why = new ArrayList<>(cause.why());
    why.add("told in " + site.server().shown(site.log()) + ":" + line);
    return new Cause(cause.what(), cause.where(), List.copyOf(why), cause.next(), -1);
  }
}

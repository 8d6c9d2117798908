package jollycrate.watch;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import jollycrate.file.PlainText;
import jollycrate.host.Fact;
import jollycrate.host.Facts;
import jollycrate.host.Glance;
import jollycrate.host.HostProcesses;
import jollycrate.host.Life;
import jollycrate.server.Cause;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.LogPlace;
import jollycrate.server.Placement;
import jollycrate.server.Presence;
import jollycrate.server.Running;
import jollycrate.server.Sign;
import jollycrate.server.Stock;
import jollycrate.stock.ServerJava;

/** Watches for facts about a placement, each with a deadline. */
public final class Waits {
  private static final int MOST_SHOWN = 200;

  /** Longest time for a server to start, apart from its applications. */
  public static final Duration SERVER_STARTS_WITHIN = Duration.ofSeconds(60);

  private static final int LOOKS_AT_LEAST = 2;
  private static final Duration MAKES_WITHIN = Duration.ofSeconds(20);
  private static final Duration GOES_WITHIN = Duration.ofSeconds(30);
  private static final Duration DRAINS_WITHIN = Duration.ofSeconds(30);
  private static final Duration PRINTS_WITHIN = Duration.ofSeconds(3);

  /** Servers write their logs behind their own backs: what says why may come a moment later. */
  public static final Duration DETAILS_WITHIN = Duration.ofSeconds(2);

  static final Duration LOOK_AGAIN = Duration.ofMillis(40);

  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;
  private boolean late;

  public Waits(Site site, Progress progress, Interrupts interrupts) {
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
   * @param besides ends of further logs at that time
   */
  public record From(
      long mark, long fresh, Instant since, boolean started, List<LogPlace> besides) {
    /** From now on. */
    public static From now(Site site, boolean started) {
      return site.host().sight().once(() -> seen(site, started));
    }

    private static From seen(Site site, boolean started) {
      site.host().sight().ahead(site.logEnds());
      long end = site.logEnd();
      return new From(end, end, site.time().now(), started, site.besides());
    }
  }

  /** Whether something that was waited for had not ended, well or not, when its time was over. */
  public boolean ranOutOfTime() {
    return late;
  }

  /** Waits until what is expected is so; the cause when it is not to be. */
  public Optional<Cause> until(Stock stock, Placement placement, Expected expected, From from) {
    Duration limit = limit(placement, expected, from.started());
    Instant until = site.time().now().plus(limit);
    Opened opened = new Opened();
    List<Path> watched = new ArrayList<>(placement.made().traces());
    watched.addAll(placement.made().marks());
    watched.add(placement.switchPath());
    from.besides().forEach(log -> watched.add(log.file()));
    Optional<Instant> failing = Optional.empty();
    Optional<Instant> unnoticed = Optional.empty();
    while (true) {
      interrupts.obey();
      Seen seen = look(placement, from, opened);
      Evidence evidence = seen.evidence();
      Sign sign = site.kind().sign(stock, placement, expected, evidence);
      if (sign instanceof Sign.Reached) {
        return Optional.empty();
      }
      if (sign instanceof Sign.Failed failed) {
        Instant since = failing.orElseGet(site.time()::now);
        failing = Optional.of(since);
        boolean mayBeTold = site.time().now().isBefore(since.plus(DETAILS_WITHIN));
        if (failed.cause().isBare() && !evidence.ended() && mayBeTold) {
          site.pause(LOOK_AGAIN, watched);
          continue;
        }
        Cause cause = seen.log().located(site, failed.cause());
        return Optional.of(!evidence.ended() ? cause : cause.with(othersOnItsPorts()));
      }
      if (sign instanceof Sign.Unnoticed) {
        unnoticed = noticedAgain(placement, unnoticed.orElseGet(site.time()::now));
      } else {
        unnoticed = Optional.empty();
      }
      String what =
          sign instanceof Sign.Unnoticed overlooked
              ? overlooked.what()
              : ((Sign.Waiting) sign).what();
      if (site.time().now().isAfter(until)) {
        late = true;
        return Optional.of(tooLate(what, limit, seen, placement));
      }
      progress.waitingFor(what);
      site.pause(LOOK_AGAIN, watched);
    }
  }

  /** Gives the switch a fresh time when nothing came of it for long; since when it is waited. */
  private Optional<Instant> noticedAgain(Placement placement, Instant since) {
    Duration patience = placement.timing().notice().multipliedBy(LOOKS_AT_LEAST);
    if (site.time().now().isBefore(since.plus(patience))) {
      return Optional.of(since);
    }
    site.files().touch(placement.switchPath());
    return Optional.empty();
  }

  /** Waits for what a server makes itself, which may come after it says that it is done. */
  public List<Path> missingAfterAll(List<Path> made) {
    Instant until = site.time().now().plus(MAKES_WITHIN);
    while (true) {
      List<Path> missing =
          made.stream().filter(path -> !site.files().facts(path).exists()).toList();
      if (missing.isEmpty() || site.time().now().isAfter(until)) {
        return missing;
      }
      progress.waitingFor(missing.get(0) + " to be there again");
      site.pause(LOOK_AGAIN, missing);
    }
  }

  /**
   * Waits until nobody is connected to a placement any more, or its time is over.
   *
   * @return number of connections that are left
   */
  public long drain(Placement placement) {
    int port = placement.route().direct().getPort();
    Instant until = site.time().now().plus(DRAINS_WITHIN);
    long left = connections(port);
    while (left > 0 && site.time().now().isBefore(until)) {
      progress.waitingFor(left + " connections to port " + port + " to end");
      site.time().pause(LOOK_AGAIN);
      left = connections(port);
    }
    return left;
  }

  /** What cannot be counted may be one. */
  private long connections(int port) {
    return site.host().processes().connections(port).orElse(1L);
  }

  /** Other ports that were opened, and since when they are the same. */
  private final class Opened {
    private Set<Integer> ports = Set.of();
    private Instant since = site.time().now();

    Duration settled(Set<Integer> now) {
      if (!now.equals(ports)) {
        ports = now;
        since = site.time().now();
      }
      return Duration.between(since, site.time().now());
    }
  }

  /** What was seen, and the log that its reasons stand in. */
  private record Seen(Evidence evidence, LogSlice log) {}

  /** Who listens on the ports of a server that does not run. */
  public List<String> othersOnItsPorts() {
    String address = site.server().ports().address();
    return site.server().ports().all().stream()
        .map(port -> site.host().processes().listening(port, address))
        .flatMap(found -> found.orElse(Optional.empty()).stream())
        .map(found -> "port " + found.port() + " is held by " + found.who())
        .toList();
  }

  private Cause tooLate(String what, Duration limit, Seen seen, Placement placement) {
    Cause cause =
        Cause.of(
                "waited " + limit.toSeconds() + " s for " + what,
                "Look at what it does while it starts, or raise 'starts-within' in [app]")
            .with(lastPrinted(seen.log().text()));
    return site.kind()
        .logs()
        .explain(placement.release().packages(), seen.log().text())
        .map(told -> cause.with(seen.log().located(site, told).why()))
        .or(() -> stalled(placement, cause))
        .orElse(cause);
  }

  private static List<String> lastPrinted(String log) {
    return PlainText.of(log)
        .lines()
        .map(String::strip)
        .filter(line -> !line.isEmpty())
        .reduce((earlier, later) -> later)
        .map(line -> "it printed last: " + line.substring(0, Math.min(MOST_SHOWN, line.length())))
        .stream()
        .toList();
  }

  /** Asks the process what it is doing, and finds the application in it. */
  private Optional<Cause> stalled(Placement placement, Cause cause) {
    Optional<Running> running = site.stockTaker().presence().found();
    if (running.isEmpty() || !site.traits().hosts() || writesFiles()) {
      return Optional.empty();
    }
    LogPlace mark = logEnd(placement);
    site.host().processes().signal(running.get().identity(), HostProcesses.Signal.QUIT);
    Instant until = site.time().now().plus(PRINTS_WITHIN);
    Optional<Cause> found = Optional.empty();
    while (found.isEmpty() && site.time().now().isBefore(until)) {
      site.time().pause(LOOK_AGAIN);
      found =
          site.kind()
              .logs()
              .stalled(placement.release().packages(), LogSlice.since(site, mark).text());
    }
    return found
        .map(seen -> LogSlice.since(site, mark).located(site, seen))
        .map(seen -> new Cause(cause.what(), seen.where(), seen.why(), cause.next(), -1));
  }

  /** An OpenJ9 that is asked what its threads do writes that into a file where it works. */
  private boolean writesFiles() {
    Path release = ServerJava.release(site.server().runtime().java());
    byte[] told = site.files().read(release, 0, ServerJava.MOST_BYTES);
    return new String(told, StandardCharsets.UTF_8).contains("OpenJ9");
  }

  private static Duration limit(Placement placement, Expected expected, boolean started) {
    Duration act = expected == Expected.UP ? placement.timing().startsWithin() : GOES_WITHIN;
    return act.plus(placement.timing().notice())
        .plus(started ? SERVER_STARTS_WITHIN : Duration.ZERO);
  }

  private Seen look(Placement placement, From from, Opened opened) {
    return site.host().sight().once(() -> see(placement, from, opened));
  }

  /** What is usually looked at; what came up since is looked at besides. */
  private Glance glance(Placement placement, From from, long mark) {
    Glance glance =
        site.stockTaker()
            .running()
            .and(site.logEnds())
            .and(LogSlice.glance(new LogPlace(site.log(), mark)))
            .facts(List.of(placement.switchPath()))
            .facts(placement.made().traces())
            .and(new Marks(site, placement).glance());
    from.besides().forEach(log -> glance.and(LogSlice.glance(log)));
    return glance;
  }

  private Seen see(Placement placement, From from, Opened opened) {
    boolean whole = !site.traits().hosts();
    long mark = whole ? 0 : from.mark();
    long fresh = whole ? from.mark() : from.fresh();
    site.host().sight().ahead(glance(placement, from, mark));
    LogSlice log = LogSlice.since(site, new LogPlace(site.log(), mark));
    LogSlice output =
        output(placement, log.text())
            .map(at -> LogSlice.since(site, at))
            .orElseGet(() -> log.and(site, site.besidesSince(from.besides())));
    Presence presence = site.stockTaker().presence();
    int port = placement.route().direct().getPort();
    Fact<Set<Integer>> ports =
        whole || from.started()
            ? site.host()
                .processes()
                .ports(presence.found().map(Running::identity).stream().toList())
            : Fact.known(Set.of(port));
    Set<Integer> elsewhere = new TreeSet<>(ports.orElse(Set.of()));
    site.server().ports().all().forEach(elsewhere::remove);
    Evidence evidence =
        new Evidence(
            log.text(),
            log.position(site, fresh),
            Duration.between(from.since(), site.time().now()),
            from.started(),
            lifeOf(presence),
            ports.map(open -> presence.found().isPresent() && open.contains(port)),
            elsewhere,
            opened.settled(elsewhere),
            output.text(),
            new Evidence.Made(
                site.files().facts(placement.switchPath()).exists(),
                site.files().facts(placement.made().traces()).stream().anyMatch(Facts::exists),
                new Marks(site, placement).texts(from.started())));
    return new Seen(evidence, output);
  }

  private static Life lifeOf(Presence presence) {
    if (presence.isStopped()) {
      return Life.GONE;
    }
    return presence.found().isPresent() ? Life.RUNS : Life.UNKNOWN;
  }

  private Optional<LogPlace> output(Placement placement, String log) {
    return site.kind().logs().output(site.files(), site.server(), placement, log);
  }

  /** Where the log that an application's own words go to ends now. */
  public LogPlace logEnd(Placement placement) {
    Path file =
        site.traits().hosts()
            ? site.log()
            : output(placement, LogSlice.since(site, new LogPlace(site.log(), 0)).text())
                .map(LogPlace::file)
                .orElse(site.log());
    return new LogPlace(
        file, file.equals(site.log()) ? site.logEnd() : site.files().facts(file).size());
  }
}

package jollycrate.delivery;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import jollycrate.app.Nearest;
import jollycrate.check.CheckResult;
import jollycrate.host.Access;
import jollycrate.host.HostException;
import jollycrate.journal.Deliveries;
import jollycrate.journal.EarlierRelease;
import jollycrate.journal.Journal;
import jollycrate.journal.JournalLine;
import jollycrate.journal.OvertakenException;
import jollycrate.server.Cause;
import jollycrate.server.KindFault;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.stock.RecordsException;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;

/** One delivery under the lock: carried out, proven and kept, or taken back. */
final class Act {
  private static final int MOST_ROUNDS = 3;

  /** A name of JNDI below an application's own. */
  private static final Pattern LOOKED_UP = Pattern.compile("\\w+(?:/[\\w.-]+){1,60}");

  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Target target;
  private final OutcomeBuilder outcome;

  Act(Site site, Progress progress, Interrupts interrupts, Target target, OutcomeBuilder outcome) {
    this.site = site;
    this.progress = progress;
    this.interrupts = interrupts;
    this.target = target;
    this.outcome = outcome;
  }

  Stock takeStock() {
    return site.stockTaker().take(target.paths());
  }

  StepList steps(Stock stock) {
    return target.steps(stock);
  }

  /**
   * Carries out, under the lock.
   *
   * @throws OvertakenException when somebody took the lock meanwhile: whoever did settles it
   */
  DeliveryOutcome.Result run(Stock first, Gate.Passage passage) {
    Begin begin = site.host().sight().once(() -> begin(first));
    List<String> found = begin.found();
    Journal journal =
        Journal.open(
            site.files(),
            site.records().journal(),
            begin.access(),
            begin.opened(),
            passage::mustStand);
    outcome.number(journal.opened().delivery());
    String cut =
        "the connection to " + site.host().name() + " was cut for a moment and taken up again";
    Runnable unwatched = site.host().sight().whenBack(() -> outcome.note(cut));
    Carrier carrier = new Carrier(site, journal, progress, interrupts, target, this::takeStock);
    try {
      site.host().sight().together(() -> prove(first, carrier, journal, found));
    } catch (OvertakenException e) {
      throw e;
    } catch (Throwable e) {
      return failed(journal, carrier, named(causeOf(e)));
    } finally {
      unwatched.run();
    }
    return kept(journal, carrier);
  }

  /**
   * What is there at the begin.
   *
   * @param found top-level names that stand in the server's folder
   * @param access of records
   */
  private record Begin(List<String> found, JournalLine.Opened opened, Access access) {}

  private Begin begin(Stock first) {
    Deliveries deliveries = new Deliveries(site.files(), site.records().deliveries());
    List<Path> folder = List.of(site.server().folder());
    site.host().sight().ahead(deliveries.glance().lists(folder).processes());
    return new Begin(namesInFolder(), opened(first, deliveries), site.recordAccess());
  }

  private void prove(Stock first, Carrier carrier, Journal journal, List<String> found) {
    StepList last = reach(first, carrier);
    interrupts.obey();
    keepRelease(journal);
    new Ending(site, journal)
        .prepare(target.next(first.standing(), journal, found).in(site.server().folder()));
    journal.write(new JournalLine.Proven(last.tidy()));
  }

  private void keepRelease(Journal journal) {
    target
        .release()
        .filter(release -> !release.files().isEmpty())
        .ifPresent(
            release ->
                site.releases()
                    .add(
                        release.numbered(journal.opened().delivery()),
                        site.files().facts(site.server().folder()).access(),
                        Set.copyOf(target.digests())));
  }

  private static Cause causeOf(Throwable e) {
    if (e instanceof StepFailed failed) {
      return failed.why();
    }
    return e instanceof HostException || e instanceof RecordsException
        ? Cause.of(e.getMessage(), "")
        : KindFault.of(e)
            .map(kind -> Cause.of("a fault of " + kind + ": " + e, "Report it to who made it"))
            .orElseGet(() -> Cause.of("a fault of ours: " + e, "Report it"));
  }

  /** A name that is looked up and not there is mostly one that is described a little otherwise. */
  private Cause named(Cause cause) {
    List<String> names = target.dataSources();
    String all = cause.what() + " " + String.join(" ", cause.why());
    if (names.isEmpty() || !all.contains("NameNotFoundException")) {
      return cause;
    }
    Optional<String> near =
        LOOKED_UP
            .matcher(all)
            .results()
            .flatMap(it -> Nearest.to(it.group(), names).stream())
            .findFirst();
    String next =
        "Described is "
            + near.map(name -> "'" + name + "'").orElse("'" + String.join("', '", names) + "'")
            + " in jolly.toml: make both the same";
    return new Cause(cause.what(), cause.where(), cause.why(), next, cause.logPosition());
  }

  private DeliveryOutcome.Result kept(Journal journal, Carrier carrier) {
    outcome.checks(carrier.results());
    try {
      outcome.down(downtime(journal, carrier)).measured(measured(journal, carrier));
    } catch (RuntimeException unmeasured) {
      outcome.note("how long it was down could not be told: " + unmeasured.getMessage());
    }
    List<String> left =
        new Ending(site, journal).keptOrWhatIsLeft(Carrier.toFinish(site, journal, progress));
    outcome.left(left);
    if (!left.isEmpty()) {
      return DeliveryOutcome.Result.STUCK;
    }
    return target.kept(carrier.results());
  }

  private Optional<DeliveryOutcome.Measured> measured(Journal journal, Carrier carrier) {
    Duration answer =
        carrier.results().stream()
            .filter(result -> result.status() > 0)
            .map(CheckResult::took)
            .findFirst()
            .orElse(Duration.ZERO);
    return carrier
        .silence()
        .filter(up -> journal.opened().placement() != null)
        .map(up -> new DeliveryOutcome.Measured(up, answer, memory()));
  }

  private long memory() {
    try {
      return site.stockTaker()
          .presence()
          .found()
          .map(running -> site.host().processes().memory(running.identity()))
          .orElse(0L);
    } catch (HostException unseen) {
      return 0;
    }
  }

  /** Nothing was down where nothing ran, or where the new release came up beside the old one. */
  private Optional<DeliveryOutcome.Downtime> downtime(Journal journal, Carrier carrier) {
    JournalLine.Opened opened = journal.opened();
    boolean restarted =
        journal.backwards().stream().anyMatch(doing -> doing.step() instanceof Step.StopServer);
    boolean answered = opened.serverRan() && (opened.earlier() != null || restarted);
    List<String> others =
        restarted
            ? site.stockTaker().standing().applications().stream()
                .map(Standing.Owner::name)
                .filter(name -> !name.equals(target.application()))
                .toList()
            : List.of();
    return carrier
        .silence()
        .filter(time -> answered && opened.swap() != Swap.BESIDE_THEN_SWITCH)
        .map(time -> new DeliveryOutcome.Downtime(time, restarted, others));
  }

  /** What stands in the journal decides, not what was believed to be written. */
  private DeliveryOutcome.Result failed(Journal believed, Carrier carrier, Cause cause) {
    Journal journal;
    try {
      journal = believed.reread();
    } catch (HostException | RecordsException e) {
      outcome.cause(cause).checks(carrier.results());
      outcome.left(List.of(e.getMessage()));
      return DeliveryOutcome.Result.STUCK;
    }
    return journal.proven().isPresent()
        ? kept(journal, carrier)
        : takeBack(journal, carrier, cause);
  }

  /** What a journal begins with. */
  private JournalLine.Opened opened(Stock stock, Deliveries deliveries) {
    return new JournalLine.Opened(
        JournalLine.FORMAT,
        deliveries.last() + 1,
        target.act(),
        target.application(),
        outcome.start(),
        site.by(),
        site.host().processes().self(),
        target.described(),
        target.release().map(EarlierRelease::revision).orElse(""),
        target.release().map(EarlierRelease::restores).orElse(0),
        target.swap(stock),
        target.placement().orElse(null),
        target.earlier(stock).orElse(null),
        target.ailed(stock).orElse(""),
        stood(stock),
        target.others(),
        !stock.process().isStopped());
  }

  private List<Path> stood(Stock stock) {
    Optional<Placement> earlier = target.earlier(stock);
    if (stock.process().isStopped() || earlier.isEmpty()) {
      return List.of();
    }
    return earlier.get().made().traces().stream()
        .filter(trace -> site.files().facts(trace).exists())
        .toList();
  }

  /** Carries out until fresh stock yields no step any more. */
  private StepList reach(Stock first, Carrier carrier) {
    StepList steps = steps(first);
    carrier.carryOut(steps);
    steps = steps(takeStock());
    for (int round = 2; steps.changes(); round++) {
      if (round > MOST_ROUNDS) {
        throw new StepFailed(
            Cause.of(
                "the server does not come to rest: after "
                    + MOST_ROUNDS
                    + " rounds there are still changes to make",
                "Find out what changes the server's folder meanwhile"));
      }
      carrier.carryOut(steps);
      steps = steps(takeStock());
    }
    return steps;
  }

  private List<String> namesInFolder() {
    return site.files().list(site.server().folder()).stream()
        .map(path -> path.getFileName().toString())
        .toList();
  }

  private DeliveryOutcome.Result takeBack(Journal journal, Carrier carrier, Cause cause) {
    progress.takingBack(cause);
    outcome.cause(cause).checks(carrier.results());
    TakeBack back = new TakeBack(site, journal, progress, carrier.ranOutOfTime());
    List<String> stuck = back.orNameWhatIsLeft();
    back.stays().forEach(outcome::note);
    outcome.note(databaseNote(journal));
    if (!stuck.isEmpty()) {
      outcome.left(stuck);
      return DeliveryOutcome.Result.STUCK;
    }
    new Ending(site, journal)
        .takenBackOrWhatIsLeft(site.secrets().mask(cause.what()))
        .forEach(outcome::note);
    return interrupts.isAsked()
        ? DeliveryOutcome.Result.INTERRUPTED
        : DeliveryOutcome.Result.TAKEN_BACK;
  }

  /** What the new release did to its database cannot be taken back, so it is said. */
  private String databaseNote(Journal journal) {
    Optional<Instant> moved =
        journal.backwards().stream()
            .filter(doing -> doing.step().moves())
            .map(JournalLine.Doing::at)
            .min(Comparator.naturalOrder());
    if (moved.isEmpty() || target.dataSources().isEmpty()) {
      return "";
    }
    Duration held = Duration.between(moved.get(), site.time().now());
    return String.format(
        Locale.ROOT,
        "for up to %.1f s the new release had %s; what it wrote there stays",
        held.toMillis() / 1000.0,
        String.join(", ", target.dataSources()));
  }
}

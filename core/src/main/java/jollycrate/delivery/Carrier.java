package jollycrate.delivery;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import jollycrate.check.CheckResult;
import jollycrate.control.ServerProcess;
import jollycrate.front.FrontServer;
import jollycrate.host.Content;
import jollycrate.journal.Journal;
import jollycrate.journal.JournalLine;
import jollycrate.server.Cause;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Stock;
import jollycrate.step.State;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.ServerWaits;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;
import jollycrate.watch.Waits;

/** Carries out steps, each with a line in the journal before and after it. */
final class Carrier {
  private final Site site;
  private final Journal journal;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Backups backups;
  private final Waits waits;
  private final ServerWaits ofServer;
  private final ServerProcess process;
  private final Tasks tasks;
  private final Supplier<Stock> stock;
  private final Map<String, List<CheckResult>> results = new LinkedHashMap<>();
  private Optional<Waits.From> moved = Optional.empty();
  private Optional<Instant> silentSince = Optional.empty();
  private Optional<Duration> silence = Optional.empty();

  Carrier(
      Site site,
      Journal journal,
      Progress progress,
      Interrupts interrupts,
      Tasks tasks,
      Supplier<Stock> stock) {
    this.site = site;
    this.journal = journal;
    this.progress = progress;
    this.interrupts = interrupts;
    this.backups = new Backups(site);
    this.waits = new Waits(site, progress, interrupts);
    this.ofServer = new ServerWaits(site, progress, interrupts);
    this.process = new ServerProcess(site);
    this.tasks = tasks;
    this.stock = stock;
  }

  /** For what is left after the proof: no signal stops that, and it checks nothing. */
  static Carrier toFinish(Site site, Journal journal, Progress progress) {
    return new Carrier(
        site,
        journal,
        progress,
        new Interrupts(),
        placement -> List.of(),
        () -> site.stockTaker().take(List.of()));
  }

  /** Whether a release was still on its way up when its time was over. */
  boolean ranOutOfTime() {
    return waits.ranOutOfTime();
  }

  /** For how long at most there was no answer, if anything answered before. */
  Optional<Duration> silence() {
    return silence;
  }

  /** Results of the last checks of each application that ran. */
  List<CheckResult> results() {
    return results.values().stream().flatMap(List::stream).toList();
  }

  /**
   * Carries out every change in order.
   *
   * @throws StepFailed when one does not come about; nothing is taken back yet
   */
  void carryOut(StepList steps) {
    CarryingOut carrying = new CarryingOut(steps.contents());
    for (Step step : steps.change()) {
      interrupts.obey();
      progress.step(site.server(), step);
      int number = journal.nextNumber();
      journal.makeRoom();
      backups.of(number, step, tasks);
      Optional<Waits.From> here =
          step.moves() ? Optional.of(Waits.From.now(site, false)) : Optional.empty();
      long mark = here.map(Waits.From::mark).orElse(-1L);
      journal.write(new JournalLine.Doing(number, step, mark, site.time().now()));
      here.ifPresent(from -> move(step, from));
      step.accept(carrying).run();
      journal.write(new JournalLine.Done(number));
    }
  }

  /**
   * What was read before the first move counts; the time is that of the last one. What a process
   * that is started now says cannot be older than its start; what the one before it said at its end
   * is none of its causes.
   */
  private void move(Step step, Waits.From here) {
    Waits.From first = moved.orElse(here);
    boolean starts = step instanceof Step.StartServer;
    boolean started = starts || first.started();
    long fresh = starts ? Math.max(first.mark(), here.mark()) : first.fresh();
    moved =
        Optional.of(
            new Waits.From(first.mark(), fresh, site.time().now(), started, first.besides()));
    silentSince = silentSince.or(() -> Optional.of(site.time().now()));
  }

  private void await(Step.Await await) {
    if (await.expected() == Expected.DRAINED) {
      waits.drain(await.placement());
      return;
    }
    orFail(waits.until(stock.get(), await.placement(), await.expected(), from()));
    if (await.expected() == Expected.UP) {
      silenceEnds();
    }
  }

  private void silenceEnds() {
    silence = silentSince.map(since -> Duration.between(since, site.time().now()));
  }

  private Waits.From from() {
    return moved.orElseGet(() -> Waits.From.now(site, false));
  }

  private static void orFail(Optional<Cause> why) {
    why.ifPresent(
        cause -> {
          throw new StepFailed(cause);
        });
  }

  private void check(Placement placement) {
    List<CheckResult> told = tasks.check(placement);
    results.put(placement.application(), told);
    List<CheckResult> failed = told.stream().filter(result -> !result.passed()).toList();
    if (!failed.isEmpty()) {
      throw new StepFailed(causeOf(failed));
    }
  }

  private static Cause causeOf(List<CheckResult> failed) {
    CheckResult first = failed.get(0);
    String what = "check '" + first.name() + "' failed";
    String more = failed.size() > 1 ? " (and " + (failed.size() - 1) + " more)" : "";
    return first
        .cause()
        .map(c -> new Cause(what + more + ": " + c.what(), c.where(), c.why(), c.next(), -1))
        .orElse(Cause.of(what + more, ""));
  }

  /** Tidies up after the proof; every step may have been done before. */
  void tidy(List<Step> steps) {
    Tidying tidying = new Tidying();
    for (Step step : steps) {
      progress.step(site.server(), step);
      step.accept(tidying).run();
    }
  }

  /** What each step does to the server. */
  private class CarryingOut implements Step.Visitor<Runnable> {
    private final Map<Path, Content> contents;

    CarryingOut(Map<Path, Content> contents) {
      this.contents = contents;
    }

    @Override
    public Runnable makeFolder(Step.MakeFolder step) {
      return () -> site.files().makeFolder(step.path(), step.access());
    }

    @Override
    public Runnable putFile(Step.PutFile step) {
      return () -> {
        backups.mustBe(step.path(), Optional.ofNullable(step.before()));
        Content content =
            new Transfer(site, progress).watched(step.path(), contents.get(step.path()));
        site.files().put(step.path(), content, step.after().access());
      };
    }

    @Override
    public Runnable removeFile(Step.RemoveFile step) {
      return () -> {
        backups.mustBe(step.path(), Optional.of(step.before()));
        site.files().delete(step.path());
      };
    }

    @Override
    public Runnable removeFolder(Step.RemoveFolder step) {
      return () -> site.deleteIfEmpty(step.path());
    }

    @Override
    public Runnable clearTrace(Step.ClearTrace step) {
      return () -> site.files().deleteTree(step.path());
    }

    @Override
    public Runnable stopServer(Step.StopServer step) {
      return process::stop;
    }

    @Override
    public Runnable applyScript(Step.ApplyScript step) {
      return () -> tasks.apply(step);
    }

    @Override
    public Runnable startServer(Step.StartServer step) {
      return () -> process.start(stock.get());
    }

    /** Holding is for taking back only. */
    @Override
    public Runnable holdFront(Step.HoldFront step) {
      return () -> {};
    }

    @Override
    public Runnable reloadFront(Step.ReloadFront step) {
      return () -> new FrontServer(site, progress).reload(step.front());
    }

    @Override
    public Runnable await(Step.Await step) {
      return () -> Carrier.this.await(step);
    }

    @Override
    public Runnable awaitPorts(Step.AwaitPorts step) {
      return () -> {
        orFail(ofServer.untilListening(step.ports(), from()));
        silenceEnds();
      };
    }

    @Override
    public Runnable awaitRead(Step.AwaitRead step) {
      return () -> orFail(ofServer.untilRead(step.path(), from()));
    }

    @Override
    public Runnable checkCertificate(Step.CheckCertificate step) {
      return () -> orFail(ofServer.otherCertificate(step.url(), step.expected()));
    }

    @Override
    public Runnable runChecks(Step.RunChecks step) {
      return () -> check(step.placement());
    }
  }

  /** The same for what is left after the proof, where a file may be gone already. */
  private final class Tidying extends CarryingOut {
    private Optional<Set<String>> kept = Optional.empty();

    Tidying() {
      super(Map.of());
    }

    @Override
    public Runnable removeFile(Step.RemoveFile step) {
      return () -> {
        if (step.moves()) {
          move(step, Waits.From.now(site, false));
        }
        State.of(site.files(), step.path())
            .filter(now -> now.digest().equals(step.before().digest()))
            .ifPresent(now -> drop(step.path(), now.digest()));
      };
    }

    /** What an earlier release is made of goes to what is kept of it. */
    private void drop(Path path, String digest) {
      Set<String> wanted = kept.orElseGet(site.releases()::wanted);
      kept = Optional.of(wanted);
      if (wanted.contains(digest)) {
        site.files().move(path, site.releases().file(digest));
      } else {
        site.files().delete(path);
      }
    }
  }
}

package jollycrate.delivery;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.control.ServerProcess;
import jollycrate.front.FrontServer;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.journal.Journal;
import jollycrate.journal.JournalLine;
import jollycrate.server.Part;
import jollycrate.step.State;
import jollycrate.step.Step;
import jollycrate.stock.RecordsException;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.ServerWaits;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;
import jollycrate.watch.Waits;

/**
 * Takes back the steps of a journal, the last one first, and brings the earlier release up again.
 * May be killed and begun again at any place.
 */
final class TakeBack {
  private final Site site;
  private final Journal journal;
  private final Progress progress;
  private final Waits waits;
  private final ServerProcess process;
  private final FrontServer front;
  private final EarlierState earlierState;
  private final List<String> stuck = new ArrayList<>();
  private final List<String> stays = new ArrayList<>();
  private boolean movedBack;

  /**
   * @param hangs whether the server may still be busy with a release that does not come up
   */
  TakeBack(Site site, Journal journal, Progress progress, boolean hangs) {
    this.site = site;
    this.journal = journal;
    this.progress = progress;
    this.waits = new Waits(site, progress, new Interrupts());
    this.process = new ServerProcess(site);
    this.front = new FrontServer(site, progress);
    this.earlierState =
        new EarlierState(
            site,
            journal,
            waits,
            new ServerWaits(site, progress, new Interrupts()),
            process,
            hangs);
  }

  /** What scripts left in databases. */
  List<String> stays() {
    return List.copyOf(stays);
  }

  /** Takes back; what could not be is named in the result, and then nothing more was touched. */
  List<String> orNameWhatIsLeft() {
    try {
      List<String> hands = run();
      if (hands.isEmpty()) {
        new Leftovers(site, journal).clear();
      }
      return hands;
    } catch (HostException | StepFailed | RecordsException e) {
      List<String> left = new ArrayList<>();
      left.add("taking back came to a halt: " + e.getMessage());
      journal.backwards().stream()
          .filter(doing -> !journal.isUndone(doing.number()))
          .flatMap(doing -> notAsBefore(doing).stream())
          .forEach(left::add);
      leftovers().forEach(left::add);
      return List.copyOf(left);
    }
  }

  private List<String> leftovers() {
    try {
      Leftovers left = new Leftovers(site, journal);
      Stream<String> made =
          left.paths().stream()
              .filter(path -> site.files().facts(path).exists())
              .map(
                  path ->
                      site.server().shown(path) + " was made by the server; it goes with the rest");
      Stream<String> marked =
          left.marks().stream()
              .map(
                  path -> site.server().shown(path) + " is the server's; it is written anew by it");
      return Stream.concat(made, marked).toList();
    } catch (HostException | RecordsException e) {
      return List.of(e.getMessage());
    }
  }

  private Optional<String> notAsBefore(JournalLine.Doing doing) {
    Step step = doing.step();
    if (step.file().isPresent()) {
      return named(step.file().get().path(), step.file().get().before(), doing.number());
    }
    if (step instanceof Step.MakeFolder make) {
      return named(make.path(), Optional.empty(), doing.number());
    }
    if (step instanceof Step.ApplyScript script) {
      return Optional.of("'" + script.script() + "' may still have to be undone");
    }
    return step.moves()
        ? Optional.of("the server may still have to be brought to its earlier state")
        : Optional.empty();
  }

  private Optional<String> named(Path path, Optional<State> before, int number) {
    try {
      return State.of(site.files(), path).equals(before)
          ? Optional.empty()
          : Optional.of(site.server().shown(path) + " is not as it was." + earlier(before, number));
    } catch (HostException e) {
      return Optional.of(e.getMessage());
    }
  }

  private String earlier(Optional<State> before, int number) {
    return before.isPresent()
        ? " Its earlier content is in " + backupOf(number)
        : " Nothing stood there before";
  }

  private List<String> run() {
    Optional<JournalLine.Doing> firstMove = firstMove();
    Optional<JournalLine.Doing> last = firstMove.flatMap(move -> beforeItComesUp());
    boolean resumed = false;
    for (JournalLine.Doing doing : journal.backwards()) {
      if (!journal.isUndone(doing.number())) {
        resumed = resumed || journal.wasUndoing(doing.number());
        undo(doing);
      } else {
        resumed = true;
      }
      boolean allMovesUndone = stuck.isEmpty() && last.filter(doing::equals).isPresent();
      if (allMovesUndone && !journal.isUndone(EarlierState.SETTLING)) {
        earlierState.settle(firstMove.get(), resumed, movedBack).ifPresent(stuck::add);
        if (stuck.isEmpty()) {
          journal.write(new JournalLine.Undone(EarlierState.SETTLING));
        }
      }
      if (!stuck.isEmpty()) {
        return List.copyOf(stuck);
      }
    }
    return List.of();
  }

  private Optional<JournalLine.Doing> firstMove() {
    return journal.backwards().stream()
        .filter(doing -> doing.step().moves())
        .reduce((later, earlier) -> earlier);
  }

  /** The earlier release comes up again on databases as they were. */
  private Optional<JournalLine.Doing> beforeItComesUp() {
    return journal.backwards().stream()
        .filter(doing -> doing.step().moves() || doing.step() instanceof Step.ApplyScript)
        .reduce((later, earlier) -> earlier);
  }

  private void undo(JournalLine.Doing doing) {
    boolean again = journal.wasUndoing(doing.number());
    if (!again) {
      journal.write(new JournalLine.Undoing(doing.number(), site.logEnd()));
    }
    doing.step().accept(new Undoing(doing.number())).run();
    if (stuck.isEmpty()) {
      journal.write(new JournalLine.Undone(doing.number()));
    }
  }

  /** Restores a file unless it is as before already. */
  private void restore(int number, Step.FileChange change, Part part) {
    Path path = change.path();
    Optional<State> before = change.before();
    site.files().delete(HostFiles.beside(path));
    Optional<State> now = State.of(site.files(), path);
    if (now.equals(before)) {
      return;
    }
    movedBack = true;
    boolean ours = now.equals(change.after());
    if (!ours) {
      stuck.add(
          site.server().shown(path)
              + " is neither as it was before the delivery nor as we left it; it was left alone."
              + earlier(before, number)
              + ". Once it is as before, or as this delivery put it, 'jolly recover' goes on");
      return;
    }
    if (part == Part.SWITCH) {
      new Leftovers(site, journal).clearMarks();
    }
    if (before.isPresent()) {
      putBack(number, path, before.get());
    } else {
      site.files().delete(path);
    }
  }

  private String backupOf(int number) {
    return site.server().shown(Backups.place(site, number));
  }

  /**
   * Needs no room on the disk: the copy itself goes back. Its fresh time shows the server that
   * something changed.
   */
  private void putBack(int number, Path path, State before) {
    Path backup = Backups.place(site, number);
    if (!State.of(site.files(), backup).equals(Optional.of(before))) {
      stuck.add("the copy of " + site.server().shown(path) + " in " + backup + " is damaged");
      return;
    }
    site.files().touch(backup);
    site.files().move(backup, path);
  }

  /** What undoes each step; the server itself is brought up again once every move is undone. */
  private final class Undoing implements Step.Visitor<Runnable> {
    private static final Runnable NOTHING = () -> {};
    private final int number;

    Undoing(int number) {
      this.number = number;
    }

    @Override
    public Runnable makeFolder(Step.MakeFolder step) {
      return () -> site.deleteIfEmpty(step.path());
    }

    @Override
    public Runnable putFile(Step.PutFile step) {
      return () -> step.file().ifPresent(change -> restore(number, change, step.part()));
    }

    @Override
    public Runnable removeFile(Step.RemoveFile step) {
      return () -> step.file().ifPresent(change -> restore(number, change, step.part()));
    }

    @Override
    public Runnable holdFront(Step.HoldFront step) {
      return () -> {
        front.reload(step.front());
        waits.drain(step.placement());
      };
    }

    @Override
    public Runnable applyScript(Step.ApplyScript step) {
      Path kept = Backups.place(site, number);
      return () -> ScriptUndoing.undo(site, progress, kept).ifPresent(stays::add);
    }

    @Override
    public Runnable startServer(Step.StartServer step) {
      return process::stop;
    }

    @Override
    public Runnable stopServer(Step.StopServer step) {
      return NOTHING;
    }

    /** Folders are removed after the proof only. */
    @Override
    public Runnable removeFolder(Step.RemoveFolder step) {
      return NOTHING;
    }

    /** A started server makes it anew. */
    @Override
    public Runnable clearTrace(Step.ClearTrace step) {
      return NOTHING;
    }

    @Override
    public Runnable reloadFront(Step.ReloadFront step) {
      return NOTHING;
    }

    @Override
    public Runnable await(Step.Await step) {
      return NOTHING;
    }

    @Override
    public Runnable awaitPorts(Step.AwaitPorts step) {
      return NOTHING;
    }

    @Override
    public Runnable awaitRead(Step.AwaitRead step) {
      return NOTHING;
    }

    @Override
    public Runnable checkCertificate(Step.CheckCertificate step) {
      return NOTHING;
    }

    @Override
    public Runnable runChecks(Step.RunChecks step) {
      return NOTHING;
    }
  }
}

package jollycrate.step;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import jollycrate.app.Front;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.Launch;
import jollycrate.server.Expected;
import jollycrate.server.Keys;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Running;
import jollycrate.server.ServerKind;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Wanted;

/**
 * Computes the steps from what stands to what is wanted. Pure: nothing is read or changed.
 *
 * <p>The order is the safety: supports are put before the switch and removed only after the proof,
 * when what needed them is gone.
 */
public final class StepsToReach {
  private final ServerKind kind;
  private final Stock stock;
  private final Optional<Wanted> wanted;
  private final Optional<Standing.Owner> owner;
  private final Launch launch;
  private final Cure cure;
  private final Swap swap;

  private final List<Step> folders = new ArrayList<>();
  private final Map<Part, List<Step>> changes = new TreeMap<>();
  private final List<Step> oldBeside = new ArrayList<>();
  private final List<Step> oldSupports = new ArrayList<>();
  private final List<Step> oldFolders = new ArrayList<>();
  private final Map<Path, Content> contents = new HashMap<>();
  private List<Step.ApplyScript> scripts = List.of();
  private boolean restart;

  /**
   * @param application whose pieces change
   * @param wanted empty: nothing of the application is wanted any more
   * @param launch the process as it should run
   * @param cure for an application that does not run although its server does
   */
  public StepsToReach(
      ServerKind kind,
      Stock stock,
      String application,
      Optional<Wanted> wanted,
      Launch launch,
      Cure cure) {
    this.kind = kind;
    this.stock = stock;
    this.wanted = wanted;
    this.owner = stock.standing().owner(application);
    this.launch = launch;
    this.cure = cure;
    this.swap =
        wanted.map(Wanted::swap).or(() -> owner.map(Standing.Owner::swap)).orElse(Swap.LIVE);
    for (Part part : Part.values()) {
      changes.put(part, new ArrayList<>());
    }
  }

  /**
   * With what is done to databases before the release takes its place, when nothing of an earlier
   * one runs any more if the server stops on the way.
   */
  public StepsToReach applying(List<Step.ApplyScript> before) {
    scripts = before;
    return this;
  }

  /** The steps. */
  public StepList compute() {
    Map<String, Standing.Held> released = released();
    collectRemovals(released);
    collectPuts();
    for (FragmentEdits.Edit edit : new FragmentEdits(kind, stock).of(pieces(), released)) {
      Path path = edit.lead().path();
      Content content = edit.content();
      put(path, content, new State(content.digest(), stock.at(path).access()), edit.lead());
    }
    List<Step> change = wanted.isPresent() ? toDeploy() : toUndeploy();
    return new StepList(change, tidy(), contents);
  }

  private List<Piece> pieces() {
    return wanted.map(Wanted::pieces).orElse(List.of());
  }

  private void collectPuts() {
    for (Piece piece : pieces()) {
      Facts facts = stock.at(piece.path());
      if (piece instanceof Piece.Folder folder && !facts.isFolder()) {
        folders.add(new Step.MakeFolder(folder.path(), folder.access()));
      } else if (piece instanceof Piece.WholeFile file
          && (!ServerSteps.stands(stock, file) || isToBeNoticedAgain(file))) {
        put(file.path(), file.content(), new State(file.content().digest(), file.access()), file);
      }
    }
  }

  private boolean isToBeNoticedAgain(Piece.WholeFile file) {
    return cure == Cure.SWITCH_AGAIN && file.part() == Part.SWITCH;
  }

  private void put(Path path, Content content, State after, Piece piece) {
    contents.put(path, content);
    changes.get(piece.part()).add(new Step.PutFile(path, stateOf(path), after, piece.part()));
    restart = restart || piece.pickUp() != PickUp.LIVE;
  }

  private State stateOf(Path path) {
    Facts facts = stock.at(path);
    return facts.isFile() ? new State(stock.digests().get(path), facts.access()) : null;
  }

  private void collectRemovals(Map<String, Standing.Held> released) {
    for (Map.Entry<String, Standing.Held> held : released.entrySet()) {
      Path path = Keys.path(stock.server(), held.getKey());
      Facts facts = stock.at(path);
      if (held.getValue().digest().equals(Standing.FOLDER)) {
        if (facts.isFolder()) {
          oldFolders.add(new Step.RemoveFolder(path, facts.access()));
        }
      } else if (facts.isFile() && !Keys.isFragment(held.getKey())) {
        Part part = held.getValue().part();
        removals(part).add(new Step.RemoveFile(path, stateOf(path), part));
      }
    }
    oldFolders.sort(
        Comparator.comparing((Step step) -> ((Step.RemoveFolder) step).path()).reversed());
  }

  /** What this application alone owns and no longer wants. */
  private Map<String, Standing.Held> released() {
    Set<String> kept = new LinkedHashSet<>();
    pieces().forEach(piece -> kept.add(Keys.of(stock.server(), piece)));
    Map<String, Standing.Held> released = new LinkedHashMap<>();
    owner.ifPresent(
        known ->
            known
                .pieces()
                .forEach(
                    (key, held) -> {
                      if (!kept.contains(key) && stock.standing().ownersOf(key).size() == 1) {
                        released.put(key, held);
                      }
                    }));
    return released;
  }

  private List<Step> removals(Part part) {
    return switch (part) {
      case SWITCH -> changes.get(Part.SWITCH);
      case COMPANION -> wanted.isPresent() ? oldSupports : changes.get(part);
      case BESIDE -> oldBeside;
      case SUPPORT, OWN -> oldSupports;
    };
  }

  private Step.StopServer stop(Running running) {
    return ServerSteps.stop(running, stock, stock.server().ports().all());
  }

  private boolean switches() {
    return !changes.get(Part.SWITCH).isEmpty();
  }

  private List<Step> toDeploy() {
    Placement placement = wanted.orElseThrow().placement();
    Optional<Running> process = stock.process().found();
    boolean runs = !stock.process().isStopped();
    boolean stale = process.filter(running -> ServerSteps.isStale(running, launch)).isPresent();
    boolean idle = cure == Cure.RESTART && !switches() && changes.get(Part.BESIDE).isEmpty();
    boolean asked = stale || restart || idle || swap == Swap.RESTART && switches();
    boolean stops =
        runs && asked && process.filter(running -> ServerSteps.mayEnd(running, stock)).isPresent();
    List<Step> steps = new ArrayList<>(folders);
    steps.addAll(changes.get(Part.SUPPORT));
    steps.addAll(changes.get(Part.COMPANION));
    if (stops) {
      process.map(this::stop).ifPresent(steps::add);
    }
    boolean down = stops || !runs;
    steps.addAll(scripts);
    if (down && switches()) {
      steps.addAll(clearTraces(placement));
    }
    boolean provenFirst = swap == Swap.BESIDE_THEN_SWITCH && (!down || front().isPresent());
    steps.addAll(changes.get(Part.BESIDE));
    if (provenFirst && (down || !changes.get(Part.BESIDE).isEmpty())) {
      if (down) {
        steps.add(new Step.StartServer());
      }
      steps.add(new Step.Await(placement.directly(), Expected.UP));
      steps.add(new Step.RunChecks(placement.directly()));
    }
    steps.addAll(switching(placement));
    if (down && !provenFirst) {
      steps.add(new Step.StartServer());
    }
    if (steps.isEmpty()) {
      return isToldOtherwise(placement) ? List.of(new Step.RunChecks(placement)) : List.of();
    }
    if (down || switches()) {
      steps.add(new Step.Await(placement, provenFirst ? Expected.SWITCHED : Expected.UP));
    }
    moved(placement).ifPresent(old -> steps.add(new Step.Await(old, Expected.GONE)));
    steps.add(new Step.RunChecks(placement));
    return List.copyOf(steps);
  }

  /** Whether what we know of a release that stands is not true any more. */
  private boolean isToldOtherwise(Placement placement) {
    return owner.map(Standing.Owner::placement).filter(placement::isToldOtherwise).isPresent();
  }

  private Optional<Front> front() {
    return stock.server().front();
  }

  /** The switch; a front reads it only when it is told to. */
  private List<Step> switching(Placement placement) {
    List<Step> steps = new ArrayList<>(changes.get(Part.SWITCH));
    if (front().isPresent() && switches()) {
      steps.add(0, new Step.HoldFront(front().get(), placement));
      steps.add(new Step.ReloadFront(front().get()));
    }
    return steps;
  }

  /** The earlier placement, when the application leaves it for another address. */
  private Optional<Placement> moved(Placement placement) {
    return owner
        .map(Standing.Owner::placement)
        .filter(old -> swap != Swap.BESIDE_THEN_SWITCH)
        .filter(old -> !old.switchPath().equals(placement.switchPath()));
  }

  private List<Step> toUndeploy() {
    if (owner.isEmpty()) {
      return List.of();
    }
    Placement placement = owner.get().placement();
    Optional<Running> process = stock.process().found();
    boolean runs = !stock.process().isStopped();
    boolean asked = restart || swap == Swap.RESTART && switches();
    Optional<Step.StopServer> stop =
        process
            .filter(running -> runs && asked && ServerSteps.mayEnd(running, stock))
            .map(this::stop);
    boolean down = stop.isPresent() || !runs;
    List<Step> steps = new ArrayList<>();
    stop.ifPresent(steps::add);
    steps.addAll(switching(placement));
    steps.addAll(changes.get(Part.COMPANION));
    if (down) {
      steps.addAll(clearTraces(placement));
      steps.addAll(changes.get(Part.SUPPORT));
    }
    if (stop.isPresent()) {
      steps.add(new Step.StartServer());
      steps.add(new Step.AwaitPorts(stop.get().ports()));
    }
    if (swap != Swap.BESIDE_THEN_SWITCH) {
      steps.add(new Step.Await(placement, Expected.GONE));
    }
    if (!down) {
      steps.addAll(changes.get(Part.SUPPORT));
    }
    return List.copyOf(steps);
  }

  private List<Step> clearTraces(Placement placement) {
    Set<Path> traces = new LinkedHashSet<>(placement.made().traces());
    owner.ifPresent(known -> traces.addAll(known.placement().made().traces()));
    return ServerSteps.clearing(traces, stock);
  }

  /** What the server leaves behind of a release that is gone. */
  private List<Step> leftBehind() {
    List<Path> left = new ArrayList<>(staying(owner.map(Standing.Owner::placement)));
    left.removeAll(staying(wanted.map(Wanted::placement)));
    return ServerSteps.clearing(left, stock);
  }

  private static List<Path> staying(Optional<Placement> placement) {
    return placement.map(one -> one.made().stays()).orElse(List.of());
  }

  private List<Step> tidy() {
    List<Step> steps = new ArrayList<>();
    if (!oldBeside.isEmpty() && owner.isPresent() && front().isPresent()) {
      steps.add(new Step.Await(owner.get().placement(), Expected.DRAINED));
    }
    steps.addAll(oldBeside);
    if (!oldBeside.isEmpty() && owner.isPresent()) {
      steps.add(new Step.Await(owner.get().placement(), Expected.GONE));
    }
    steps.addAll(leftBehind());
    steps.addAll(oldSupports);
    steps.addAll(oldFolders);
    return List.copyOf(steps);
  }
}

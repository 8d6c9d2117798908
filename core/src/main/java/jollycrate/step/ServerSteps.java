package jollycrate.step;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.app.Https;
import jollycrate.app.Ports;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.Launch;
import jollycrate.server.Expected;
import jollycrate.server.Overhaul;
import jollycrate.server.Part;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Running;
import jollycrate.server.Stock;

/**
 * Computes the steps that change a server itself. Pure: nothing is read or changed. A server that
 * does not run is not started for it.
 */
public final class ServerSteps {
  private final Stock stock;
  private final Overhaul overhaul;
  private final Launch launch;
  private final List<Integer> before;
  private final List<Placement> up;
  private final Optional<Piece.WholeFile> description;
  private final Map<Path, Content> contents = new HashMap<>();

  /**
   * @param launch the process as it should run
   * @param before ports that it was described with
   * @param up placements that were up, and have to be afterwards
   * @param description the file that describes the server, where that changes with it
   */
  public ServerSteps(
      Stock stock,
      Overhaul overhaul,
      Launch launch,
      List<Integer> before,
      List<Placement> up,
      Optional<Piece.WholeFile> description) {
    this.stock = stock;
    this.overhaul = overhaul;
    this.launch = launch;
    this.before = before;
    this.up = up;
    this.description = description;
  }

  /** The steps. */
  public StepList compute() {
    List<Piece.WholeFile> files =
        overhaul.files().stream().filter(file -> !stands(stock, file)).toList();
    List<Path> gone = overhaul.gone().stream().filter(path -> stock.at(path).isFile()).toList();
    Optional<Running> running = stock.process().found();
    boolean restart =
        running.filter(process -> isStale(process, launch)).isPresent()
            || !gone.isEmpty()
            || files.stream().anyMatch(Piece.WholeFile::restarts);
    List<Step> steps = new ArrayList<>();
    boolean stops = restart && running.filter(process -> mayEnd(process, stock)).isPresent();
    if (stops) {
      running.map(process -> stop(process, stock, before)).ifPresent(steps::add);
    }
    files.stream().flatMap(file -> folders(file.path())).distinct().forEach(steps::add);
    files.forEach(file -> steps.add(put(file)));
    gone.forEach(path -> steps.add(new Step.RemoveFile(path, state(path), Part.OWN)));
    if (stops) {
      steps.addAll(started());
    } else if (running.isPresent()) {
      files.forEach(file -> steps.add(new Step.AwaitRead(file.path())));
    }
    description.filter(file -> !stands(stock, file)).map(this::put).ifPresent(steps::add);
    return new StepList(List.copyOf(steps), List.of(), contents);
  }

  private List<Step> started() {
    List<Step> steps = new ArrayList<>();
    steps.add(new Step.StartServer());
    steps.add(new Step.AwaitPorts(stock.server().ports().all()));
    Ports ports = stock.server().ports();
    ports
        .https()
        .flatMap(Https::certificate)
        .ifPresent(it -> steps.add(new Step.CheckCertificate(ports.overTls().orElseThrow(), it)));
    up.forEach(placement -> steps.add(new Step.Await(placement, Expected.UP)));
    up.forEach(placement -> steps.add(new Step.RunChecks(placement)));
    return steps;
  }

  /** Those on the way to a file that are to be made, the outermost first. */
  private Stream<Step> folders(Path file) {
    Path folder = file.getParent();
    Path own = stock.server().folder();
    if (!folder.startsWith(own) || folder.equals(own) || stock.at(folder).exists()) {
      return Stream.empty();
    }
    return Stream.concat(
        folders(folder), Stream.of(new Step.MakeFolder(folder, stock.access().with("rwxr-x---"))));
  }

  private Step put(Piece.WholeFile file) {
    contents.put(file.path(), file.content());
    State after = new State(file.content().digest(), file.access());
    return new Step.PutFile(file.path(), state(file.path()), after, file.part());
  }

  private State state(Path path) {
    Facts facts = stock.at(path);
    return facts.isFile() ? new State(stock.digests().get(path), facts.access()) : null;
  }

  /** Whether a file stands as it is wanted. */
  static boolean stands(Stock stock, Piece.WholeFile file) {
    Facts facts = stock.at(file.path());
    return facts.isFile()
        && facts.access().equals(file.access())
        && file.content().digest().equals(stock.digests().get(file.path()));
  }

  /**
   * Stops a process.
   *
   * @param described ports that it was described with
   */
  static Step.StopServer stop(Running running, Stock stock, Collection<Integer> described) {
    return new Step.StopServer(
        running.identity(),
        running.fingerprint(),
        running.command(),
        described.stream().filter(stock.ownPorts()::contains).toList());
  }

  /** Takes away what a server made by itself, as far as it stands there. */
  public static List<Step> clearing(Collection<Path> made, Stock stock) {
    return made.stream()
        .filter(path -> stock.at(path).exists())
        .<Step>map(Step.ClearTrace::new)
        .toList();
  }

  /** How somebody else wants his process to run is not ours to say. */
  static boolean isStale(Running running, Launch launch) {
    return running.ours() && !running.fingerprint().equals(launch.fingerprint());
  }

  /** What somebody else started is ended only if it can be started again as he does. */
  static boolean mayEnd(Running running, Stock stock) {
    return running.ours() || stock.server().steering().hasItsOwn();
  }
}

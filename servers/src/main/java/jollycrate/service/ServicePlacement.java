package jollycrate.service;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.Front;
import jollycrate.app.Program;
import jollycrate.artifact.Artifact;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.hosting.Refusals;
import jollycrate.secret.Secrets;
import jollycrate.server.Order;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Wanted;

/** What one order needs in a service: the artifact, its settings, and the file by which it runs. */
final class ServicePlacement {
  private static final Duration NOTICE = Duration.ofSeconds(1);
  private static final int MOST_PACKAGES = 40;

  private final Stock stock;
  private final Server server;
  private final Order order;
  private final Application application;
  private final Artifact artifact;
  private final Program program;
  private final ServiceFiles files;
  private final ProgramRun run;
  private final Access openFile;
  private final Access secretFile;
  private final Refusals refusals = new Refusals();
  private final Map<String, String> hidden = new HashMap<>();

  ServicePlacement(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    this.artifact = order.artifact();
    this.files = new ServiceFiles(server);
    this.program = application.program();
    this.run = new ProgramRun(server, order, refusals);
    this.openFile = stock.access().with("rw-r-----");
    this.secretFile = stock.access().with("rw-------");
  }

  Wanted wanted() {
    int port = port();
    Pieces made = pieces(port);
    onlyOne();
    application
        .context()
        .entries()
        .forEach(
            entry ->
                refuse(
                    "[env-entry] " + entry.name(),
                    "a program of its own has no java:comp/env to find it in",
                    "Give it in [settings], or in 'variables' of [program]"));
    ownFolders();
    Swap swap = server.front().isPresent() ? Swap.BESIDE_THEN_SWITCH : Swap.LIVE;
    return new Wanted(placement(port, made.traces()), made.pieces(), swap, refusals.all(), hidden);
  }

  /** With a front, a changed release comes up on the port that the standing one does not have. */
  private int port() {
    Optional<Integer> standing =
        stock
            .standing()
            .owner(application.name())
            .map(owner -> owner.placement().route().direct().getPort())
            .filter(server.ports().all()::contains);
    if (server.front().isEmpty() || standing.isEmpty()) {
      return server.ports().http();
    }
    int now = standing.get();
    String text = new ProgramRun(server, order, new Refusals()).on(now).text();
    boolean same = stock.text(files.run(now)).equals(Optional.of(text));
    int other =
        now == server.ports().http()
            ? server.ports().beside().orElseThrow()
            : server.ports().http();
    return same ? now : other;
  }

  private void onlyOne() {
    stock.standing().applications().stream()
        .map(Standing.Owner::name)
        .filter(name -> !name.equals(application.name()))
        .findFirst()
        .ifPresent(
            other ->
                refuse(
                    server.name(),
                    "this service runs '" + other + "' already, and a service runs one program",
                    "Make another with 'jolly server new NAME --kind service'"));
  }

  /** A program must not work, nor find its settings, where ours stand. */
  private void ownFolders() {
    List<String> paths = new ArrayList<>(List.of(program.folder()));
    program
        .settings()
        .filter(file -> !program.holds(Program.SETTINGS))
        .ifPresent(file -> paths.add(Path.of(program.folder(), file.name()).toString()));
    for (String path : paths) {
      String first = Path.of(path).getName(0).toString();
      if (ServiceKind.FOLDERS.contains(first) || first.equals(".jolly")) {
        refuse(path, "'" + first + "/' is the service's own folder", "Choose another one");
      }
    }
  }

  private void refuse(String subject, String message, String fix) {
    refusals.refuse(subject, message, fix);
  }

  /**
   * What stands in the folder for the program.
   *
   * @param traces what the keeper makes by itself
   */
  private record Pieces(List<Piece> pieces, List<Path> traces) {}

  private Pieces pieces(int port) {
    ProgramRun.Made made = run.on(port);
    made.hidden().forEach(value -> hidden.put(value, Secrets.HIDDEN));
    List<Piece> pieces = new ArrayList<>();
    List<Path> traces = new ArrayList<>();
    for (Path own : List.of(files.releases(), files.run())) {
      pieces.add(new Piece.Folder(own, stock.access().with("rwxr-x---")));
    }
    folders(run.folder()).forEach(pieces::add);
    if (order.unfolded().isEmpty()) {
      pieces.add(
          new Piece.WholeFile(
              run.jar(),
              Content.of(artifact.file(), artifact.digest(), artifact.size()),
              openFile,
              Part.SUPPORT,
              PickUp.LIVE));
    }
    made.settings()
        .ifPresent(
            settings -> {
              Access folderAccess = stock.access().with("rwxr-x---");
              pieces.add(new Piece.Folder(files.settings(), folderAccess));
              pieces.add(new Piece.Folder(settings.file().getParent(), folderAccess));
              pieces.add(
                  new Piece.WholeFile(
                      settings.file(),
                      Content.of(settings.text()),
                      settings.secret() ? secretFile : openFile,
                      Part.SUPPORT,
                      PickUp.LIVE));
              if (!program.holds(Program.SETTINGS)) {
                folders(run.inPlace().getParent()).forEach(pieces::add);
                traces.add(run.inPlace());
              }
            });
    boolean fronted = server.front().isPresent();
    pieces.add(
        new Piece.WholeFile(
            files.run(port),
            Content.of(made.text()),
            made.secret() ? secretFile : openFile,
            fronted ? Part.BESIDE : Part.SWITCH,
            PickUp.LIVE));
    server.front().ifPresent(front -> pieces.add(upstream(front, port)));
    traces.forEach(this::mustBeFree);
    return new Pieces(pieces.stream().distinct().toList(), traces);
  }

  /** Folders below the service's own that lead to one, the outermost first. */
  private List<Piece> folders(Path innermost) {
    List<Piece> folders = new ArrayList<>();
    for (Path made = innermost; !server.folder().startsWith(made); made = made.getParent()) {
      folders.add(0, new Piece.Folder(made, stock.access().with("rwxr-x---")));
    }
    return folders;
  }

  private Piece upstream(Front front, int port) {
    String text = stock.text(front.config()).orElse("");
    byte[] bytes = stock.texts().getOrDefault(front.config(), new byte[0]);
    if (!Arrays.equals(bytes, text.getBytes(StandardCharsets.UTF_8))) {
      refuse(front.config().toString(), "it is not UTF-8 text", "Write it in UTF-8");
    }
    Upstream.fault(text, front.upstream())
        .ifPresent(fault -> refuse(front.config().toString(), fault.message(), fault.fix()));
    return new Piece.Fragment(
        front.config(),
        front.upstream(),
        server.ports().boundName() + ":" + port,
        Part.SWITCH,
        PickUp.LIVE);
  }

  private void mustBeFree(Path trace) {
    boolean ours =
        stock
            .standing()
            .owner(application.name())
            .filter(owner -> owner.placement().made().traces().contains(trace))
            .isPresent();
    if (stock.at(trace).exists() && !ours) {
      refuse(
          server.shown(trace),
          "the settings file goes there, and something stands there already",
          "Move it away if nobody needs it");
    }
    if (server.front().isPresent()) {
      refuse(
          server.shown(trace),
          "two releases side by side cannot share a settings file at one place",
          "Tell the program where its settings stand, with {settings} in its 'arguments', 'java' or"
              + " 'variables'");
    }
  }

  private Placement placement(int port, List<Path> traces) {
    String path = application.context().path().orElse("");
    URI direct = URI.create("http://" + server.ports().hostName() + ":" + port + path + "/");
    URI base =
        server
            .front()
            .map(front -> URI.create(front.address() + path.replaceFirst("^/", "")))
            .map(address -> URI.create(address.toString().replaceFirst("/*$", "/")))
            .orElseGet(() -> server.ports().publicly(path + "/"));
    return new Placement(
        new Placement.Release(application.name(), order.version(), artifact.digest(), packages()),
        new Placement.Route(Placement.MAIN, path, base, direct),
        server.front().map(Front::config).orElse(files.run(port)),
        Placement.Made.of(traces),
        new Placement.Timing(NOTICE, application.context().startsWithin()));
  }

  /** Of a merged archive, those that are kin to the class that is started. */
  private List<String> packages() {
    String main =
        program
            .main()
            .or(artifact.start()::startClass)
            .or(artifact.start()::mainClass)
            .orElse("")
            .strip();
    List<String> names = List.of(main.split("\\."));
    String kin = String.join(".", names.subList(0, Math.min(2, names.size() - 1)));
    List<String> akin =
        artifact.classes().ownPackages().stream()
            .filter(name -> !kin.isEmpty() && (name + ".").startsWith(kin + "."))
            .toList();
    return (run.isAlone() || akin.isEmpty()
            ? artifact.classes().ownPackages().stream()
            : akin.stream())
        .limit(MOST_PACKAGES)
        .toList();
  }
}

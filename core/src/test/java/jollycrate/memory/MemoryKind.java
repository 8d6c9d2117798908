package jollycrate.memory;

import java.net.URI;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ServletNamespace;
import jollycrate.file.Digests;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.HostFiles;
import jollycrate.host.Launch;
import jollycrate.server.Cause;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Feature;
import jollycrate.server.KindLogs;
import jollycrate.server.KindProcesses;
import jollycrate.server.Occupant;
import jollycrate.server.Order;
import jollycrate.server.Overhaul;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.ServerKind;
import jollycrate.server.Sign;
import jollycrate.server.Splicer;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Traits;
import jollycrate.server.Wanted;
import jollycrate.server.Wish;

/** The kind of the server in memory, in each of the three swaps. */
final class MemoryKind implements ServerKind, KindProcesses, KindLogs {
  static final Traits TRAITS =
      new Traits(
          "memory",
          Set.of(ArtifactKind.WAR),
          ServletNamespace.JAKARTA,
          1,
          Set.of(Swap.values()),
          new Traits.Folders(List.of("logs"), List.of(), Path.of("logs/log")),
          Set.of(),
          Set.of(Feature.HOSTS));

  private final Swap swap;
  private final Supplier<String> shared;

  MemoryKind(Swap swap, Supplier<String> shared) {
    this.swap = swap;
    this.shared = shared;
  }

  @Override
  public List<Traits> lines() {
    return List.of(TRAITS);
  }

  @Override
  public Optional<Traits> recognise(HostFiles files, Path installation) {
    return Optional.of(TRAITS);
  }

  @Override
  public List<Piece> instance(HostFiles files, Server server, Access access) {
    return List.of();
  }

  @Override
  public List<Path> reads(Server server) {
    return List.of(shared(server), users(server));
  }

  @Override
  public List<Path> lists(Server server, Map<Path, byte[]> texts) {
    return List.of();
  }

  private static Path users(Server server) {
    return server.folder().resolve(MemoryServer.USERS);
  }

  /** Users are read while it runs, all else when it starts. */
  @Override
  public Overhaul overhaul(HostFiles files, Stock stock, Wish wish) {
    boolean live = wish instanceof Wish.Users;
    Path file = live ? users(stock.server()) : shared(stock.server());
    String line = wish instanceof Wish.AsDescribed ? MemoryServer.SPOILT : "door: closed\n";
    String text = stock.text(file).orElse("");
    Content content = Content.of(text.contains(line) ? text : text + line);
    PickUp pickUp = live ? PickUp.LIVE : PickUp.RESTART;
    List<Piece.WholeFile> wanted = new ArrayList<>(List.of(own(stock, file, content, pickUp)));
    if (wish instanceof Wish.Hardened hardened && hardened.movesPages()) {
      Path moved = stock.server().folder().resolve("pages/admin/moved.conf");
      wanted.add(own(stock, moved, Content.of("pages"), pickUp));
    }
    return new Overhaul(wanted, Map.of(), List.of(), List.of(), List.of(), List.of(), Map.of());
  }

  private static Piece.WholeFile own(Stock stock, Path file, Content content, PickUp pickUp) {
    Facts facts = stock.at(file);
    Access access = facts.isFile() ? facts.access() : stock.access().with("rw-r-----");
    return new Piece.WholeFile(file, content, access, Part.OWN, pickUp);
  }

  @Override
  public boolean tellsOfReading(Path file, String log) {
    return log.contains("read " + file.getFileName() + "\n");
  }

  private static Path shared(Server server) {
    return server.folder().resolve("shared.conf");
  }

  @Override
  public Launch launch(Stock stock) {
    Path folder = stock.server().folder();
    return new Launch(
        List.of(MemoryHost.SERVER, Launch.TOKEN),
        folder,
        folder,
        Map.of(),
        List.of(),
        folder.resolve("logs/log"),
        List.of());
  }

  @Override
  public boolean isOne(List<String> arguments) {
    return arguments.contains(MemoryHost.SERVER);
  }

  @Override
  public Optional<Path> folder(List<String> arguments) {
    return Optional.of(World.FOLDER);
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    return List.of();
  }

  @Override
  public Wanted wanted(Stock stock, Order order) {
    Path folder = stock.server().folder();
    String name = order.application().name();
    String digest = order.artifact().digest();
    Access file = stock.access().with("rw-r-----");
    Path store = folder.resolve("store");
    Path artifact = store.resolve(name + "-" + Digests.brief(digest) + ".art");
    Path driver = store.resolve("driver.jar");
    List<Piece> pieces = new ArrayList<>();
    pieces.add(new Piece.Folder(store, stock.access()));
    pieces.add(whole(artifact, Content.of(order.artifact().file()), file, Part.SUPPORT));
    pieces.add(whole(driver, Content.of(shared.get()), file, Part.SUPPORT));
    pieces.add(new Piece.Fragment(shared(stock.server()), name, "anna", Part.SUPPORT, PickUp.LIVE));
    Path switchPath = folder.resolve("sites").resolve(name + ".site");
    Content pointer = Content.of(artifact + "\n");
    String unique = name + "-" + Digests.brief(digest);
    if (swap == Swap.BESIDE_THEN_SWITCH) {
      switchPath = folder.resolve("routes").resolve(name + ".route");
      pieces.add(
          whole(folder.resolve("beside").resolve(unique + ".site"), pointer, file, Part.BESIDE));
      pieces.add(whole(switchPath, Content.of(unique + "\n"), file, Part.SWITCH));
    } else {
      pieces.add(whole(switchPath, pointer, file, Part.SWITCH));
    }
    boolean fronted = stock.server().front().isPresent();
    String trace = swap == Swap.BESIDE_THEN_SWITCH ? unique : name;
    Placement placement =
        new Placement(
            new Placement.Release(name, order.version(), digest, List.of()),
            new Placement.Route(
                "main",
                "/" + name,
                URI.create("http://memory:8080/" + (fronted ? name : trace) + "/"),
                URI.create("http://memory:8080/" + trace + "/")),
            switchPath,
            new Placement.Made(
                List.of(folder.resolve("exploded").resolve(trace)),
                List.of(MemoryServer.leftOf(folder, artifact)),
                List.of(MemoryServer.markOf(folder, trace))),
            new Placement.Timing(
                MemoryServer.SCAN.multipliedBy(2), order.application().context().startsWithin()));
    return new Wanted(placement, pieces, swap, List.of(), Map.of());
  }

  private static Piece whole(Path path, Content content, Access access, Part part) {
    return new Piece.WholeFile(path, content, access, part, PickUp.LIVE);
  }

  @Override
  public Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence) {
    String name = placement.made().traces().get(0).getFileName().toString();
    return switch (expected) {
      case UP -> up(name, evidence);
      case DRAINED -> new Sign.Reached();
      case SWITCHED -> switched(placement.application(), name, evidence);
      case GONE -> gone(name, evidence);
    };
  }

  private static Sign up(String name, Evidence evidence) {
    if (evidence.ended()) {
      return new Sign.Failed(Cause.of("the server ended", ""));
    }
    String log = evidence.log();
    int begun = log.lastIndexOf("begin " + name + "\n");
    int end = begun < 0 ? -1 : log.indexOf("end " + name + "\n", begun);
    if (begun < 0 || begun < evidence.fresh()) {
      boolean hangs = begun >= 0 && end < 0 && evidence.since().toSeconds() > 5;
      boolean busy = begun >= 0 && end < 0 || evidence.started();
      Sign unseen =
          busy ? new Sign.Waiting("notice of " + name) : new Sign.Unnoticed("notice of " + name);
      return hangs ? new Sign.Failed(Cause.of("it is blocked", "")) : unseen;
    }
    if (end < 0) {
      return new Sign.Waiting("end of start of " + name);
    }
    if (log.substring(begun, end).contains("failed " + name)) {
      return new Sign.Failed(Cause.of("it did not start", ""));
    }
    return evidence.made().marks().containsValue("up")
        ? new Sign.Reached()
        : new Sign.Waiting("mark of " + name);
  }

  private static Sign switched(String application, String name, Evidence evidence) {
    int last = evidence.log().lastIndexOf("route " + application + " ");
    boolean unchanged = last < 0 && evidence.since().compareTo(MemoryServer.SCAN) > 0;
    boolean here =
        last >= 0 && evidence.log().startsWith("route " + application + " " + name, last);
    return unchanged || here ? new Sign.Reached() : new Sign.Waiting("route to " + name);
  }

  private static Sign gone(String name, Evidence evidence) {
    if (evidence.tracesStand()) {
      return new Sign.Waiting("trace of " + name);
    }
    boolean quiet =
        !evidence.log().contains("begin " + name + "\n")
            && evidence.since().compareTo(MemoryServer.SCAN.multipliedBy(2)) > 0;
    long begun = evidence.log().lines().filter(("begin " + name)::equals).count();
    long dropped = evidence.log().lines().filter(("drop " + name)::equals).count();
    boolean seen = dropped > 0 && dropped >= begun;
    return evidence.ended() || quiet || seen || evidence.started() && begun == 0
        ? new Sign.Reached()
        : new Sign.Waiting("end of " + name);
  }

  @Override
  public KindProcesses processes() {
    return this;
  }

  @Override
  public KindLogs logs() {
    return this;
  }

  @Override
  public List<Path> all(Stock stock) {
    return List.of();
  }

  @Override
  public Optional<Cause> explain(List<String> packages, String log) {
    return Optional.empty();
  }

  @Override
  public Optional<Splicer> splicer(Path file) {
    return Optional.of(new LineSplicer());
  }
}

package rack.kind;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.Application;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ServletNamespace;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.host.Launch;
import jollycrate.hosting.Delivered;
import jollycrate.server.Among;
import jollycrate.server.Answers;
import jollycrate.server.Cause;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Feature;
import jollycrate.server.Inside;
import jollycrate.server.KindLogs;
import jollycrate.server.KindProcesses;
import jollycrate.server.Occupant;
import jollycrate.server.Order;
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

/** A rack: a hook for each application, a door for its path, and marks beside the hook. */
public final class RackKind implements ServerKind, KindProcesses, KindLogs {
  private static final String MAIN = "rack.server.Rack";
  private static final String ARCHIVE = "rack.jar";
  private static final String PAGE = "/.rack";
  private static final Path LOG = Path.of("logs/rack.log");
  private static final Traits TRAITS =
      new Traits(
          "Rack 1",
          Set.of(ArtifactKind.WAR),
          ServletNamespace.NONE,
          17,
          Set.of(Swap.LIVE),
          new Traits.Folders(List.of("logs"), List.of("hooks", "doors"), LOG),
          Set.of(),
          Set.of(Feature.HOSTS));

  @Override
  public Optional<Traits> recognise(HostFiles files, Path installation) {
    boolean there = files.facts(installation.resolve(ARCHIVE)).isFile();
    return there ? Optional.of(TRAITS) : Optional.empty();
  }

  @Override
  public List<Traits> lines() {
    return List.of(TRAITS);
  }

  @Override
  public List<Piece> instance(HostFiles files, Server server, Access access) {
    Access folder = access.with("rwxr-x---");
    return List.of(
        new Piece.Folder(hooks(server), folder),
        new Piece.Folder(server.folder().resolve("logs"), folder),
        new Piece.WholeFile(
            doors(server),
            Content.of("# paths that are open\n"),
            access.with("rw-r-----"),
            Part.SUPPORT,
            PickUp.LIVE));
  }

  private static Path hooks(Server server) {
    return server.folder().resolve("hooks");
  }

  private static Path doors(Server server) {
    return server.folder().resolve("doors");
  }

  @Override
  public List<Path> reads(Server server) {
    return List.of(doors(server));
  }

  @Override
  public List<Among> readsAmong(Server server) {
    return List.of(new Among(hooks(server), ".hook"));
  }

  @Override
  public List<Path> lists(Server server, Map<Path, byte[]> texts) {
    return List.of();
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    Among among = new Among(hooks(stock.server()), ".hook");
    return stock.texts().keySet().stream()
        .filter(among::contains)
        .map(
            hook -> {
              String path = stock.text(hook).orElse("").lines().findFirst().orElse("");
              return new Occupant(Placement.MAIN, path, hook, true);
            })
        .toList();
  }

  @Override
  public List<String> pages() {
    return List.of(PAGE);
  }

  @Override
  public List<Inside> inside(Stock stock, Answers answers) {
    return answers
        .pages()
        .getOrDefault(PAGE, "")
        .lines()
        .map(path -> new Inside(Placement.MAIN, path, "hangs", Optional.empty(), List.of()))
        .toList();
  }

  @Override
  public Wanted wanted(Stock stock, Order order) {
    Server server = stock.server();
    Application application = order.application();
    String path = application.context().path().orElse("/" + application.name());
    Delivered delivered = new Delivered(stock, order);
    Path hook = hooks(server).resolve(application.name() + ".hook");
    delivered.live(hook, Content.of(path + "\n" + delivered.archive() + "\n"));
    Wanted wanted =
        new Wanted(
            new Placement(
                delivered.release(),
                Placement.Route.at(Placement.MAIN, path, server.ports()),
                hook,
                new Placement.Made(
                    List.of(mark(hook, "hung")),
                    List.of(),
                    List.of(mark(hook, "hung"), mark(hook, "dropped"), mark(hook, "taken"))),
                new Placement.Timing(Duration.ofSeconds(1), application.context().startsWithin())),
            delivered.pieces(),
            Swap.LIVE,
            refused(order),
            Map.of());
    return wanted.after(
        List.of(
            new Piece.Fragment(doors(server), path, Doors.line(path), Part.SUPPORT, PickUp.LIVE)));
  }

  private static Path mark(Path hook, String what) {
    return hook.resolveSibling(hook.getFileName().toString().replace(".hook", "." + what));
  }

  private static List<Wanted.Refused> refused(Order order) {
    Application application = order.application();
    List<String> lacking = new ArrayList<>();
    if (order.onAdminPort()) {
      lacking.add("admin listener");
    }
    application.context().host().ifPresent(host -> lacking.add("virtual hosts"));
    application.dataSources().forEach(source -> lacking.add("data sources"));
    application.context().entries().forEach(entry -> lacking.add("environment entries"));
    if (!order.userPasswords().isEmpty()) {
      lacking.add("users");
    }
    return lacking.stream()
        .distinct()
        .map(what -> new Wanted.Refused("Rack", "it has no " + what, "Take another server"))
        .toList();
  }

  /** Its marks begin with the text of the hook that they are of. */
  @Override
  public Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence) {
    Path hook = placement.switchPath();
    Map<Path, String> marks = evidence.made().marks();
    if (expected == Expected.GONE) {
      boolean took = !evidence.tracesStand() && marks.containsKey(mark(hook, "taken"));
      boolean gone = took || evidence.ended() || evidence.started() && evidence.open();
      return !evidence.switchStands() && gone
          ? new Sign.Reached()
          : new Sign.Waiting("the rack to take down " + placement.application());
    }
    if (evidence.ended()) {
      return new Sign.Failed(Cause.of("the rack ended", "Read its log"));
    }
    String dropped = marks.getOrDefault(mark(hook, "dropped"), "");
    if (dropped.contains(placement.release().digest().substring(0, 12))) {
      String why = dropped.lines().skip(2).findFirst().orElse("it does not say why");
      return new Sign.Failed(Cause.of(why, "Fix the archive"));
    }
    return marks
            .getOrDefault(mark(hook, "hung"), "")
            .contains(placement.release().digest().substring(0, 12))
        ? new Sign.Reached()
        : new Sign.Waiting("the rack to hang up " + placement.application());
  }

  @Override
  public Optional<Splicer> splicer(Path file) {
    return file.endsWith("doors") ? Optional.of(new Doors()) : Optional.empty();
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
  public Launch launch(Stock stock) {
    Server server = stock.server();
    List<String> command = server.javaCommand();
    command.add("-Djolly.token=" + Launch.TOKEN);
    command.add("-cp");
    command.add(server.installation().resolve(ARCHIVE).toString());
    command.add(MAIN);
    command.add(server.folder().toString());
    command.add(server.ports().address());
    command.add("" + server.ports().http());
    return new Launch(
        command,
        server.folder(),
        stock.owned(),
        server.runtime().environment(),
        server.runtime().declared(),
        server.log(LOG),
        List.of());
  }

  @Override
  public boolean isOne(List<String> arguments) {
    return arguments.contains(MAIN);
  }

  @Override
  public Optional<Path> folder(List<String> arguments) {
    int main = arguments.indexOf(MAIN);
    return arguments.stream().skip(main + 1L).findFirst().map(Path::of);
  }

  @Override
  public List<Path> all(Stock stock) {
    return List.of(stock.server().log(LOG));
  }

  @Override
  public Optional<Cause> explain(List<String> packages, String log) {
    return log.lines()
        .filter(line -> line.startsWith("dropped "))
        .reduce((earlier, later) -> later)
        .map(line -> Cause.of(line, "Fix the archive"));
  }
}

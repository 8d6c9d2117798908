package jollycrate.stock;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.boot.BootUnit;
import jollycrate.host.Fact;
import jollycrate.host.Facts;
import jollycrate.host.Glance;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.host.Identity;
import jollycrate.host.Listening;
import jollycrate.host.Program;
import jollycrate.json.Json;
import jollycrate.secret.HiddenValues;
import jollycrate.secret.Secrets;
import jollycrate.secret.WellKnown;
import jollycrate.server.Among;
import jollycrate.server.Keys;
import jollycrate.server.Presence;
import jollycrate.server.Running;
import jollycrate.server.Server;
import jollycrate.server.ServerKind;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.xml.XmlDocument;

/** Takes stock: reads, never changes. */
public final class StockTaker {
  private static final int MOST_RECORD_BYTES = 64 << 20;

  private final Host host;
  private final ServerKind kind;
  private final Server server;
  private final Optional<Secrets> secrets;

  /** For one server. */
  public StockTaker(Host host, ServerKind kind, Server server) {
    this(host, kind, server, Optional.empty());
  }

  /** The same; what is secret in files that it reads is hidden in every output from then on. */
  public StockTaker(Host host, ServerKind kind, Server server, Secrets secrets) {
    this(host, kind, server, Optional.of(secrets));
  }

  private StockTaker(Host host, ServerKind kind, Server server, Optional<Secrets> secrets) {
    this.host = host;
    this.kind = kind;
    this.server = server;
    this.secrets = secrets;
  }

  /** Feature release of the Java that the server runs on. */
  public int java() {
    return server
        .runtime()
        .supply()
        .map(Server.Supply::feature)
        .orElseGet(() -> ServerJava.feature(host, server.runtime().java()));
  }

  /**
   * What stands there now.
   *
   * @param alsoAt further paths to look at
   */
  public Stock take(Collection<Path> alsoAt) {
    return host.sight().once(() -> look(alsoAt));
  }

  /** The first glance is at what every server has, the second at what the first told of. */
  private Stock look(Collection<Path> alsoAt) {
    HostFiles files = host.files();
    host.sight().ahead(usual());
    List<Path> reads = reads(files);
    Standing standing = standing();
    Map<Path, byte[]> own = files.wholes(reads, XmlDocument.MOST_BYTES);
    List<Path> lists = kind.lists(server, own);
    Path told = kind.owned(server, own);
    Set<Path> pieces = new LinkedHashSet<>(alsoAt);
    standing.pieces().keySet().forEach(key -> pieces.add(Keys.path(server, key)));
    Set<Path> paths = new LinkedHashSet<>(List.of(server.folder(), told));
    paths.addAll(reads);
    standing
        .applications()
        .forEach(
            owner -> {
              paths.addAll(owner.placement().made().all());
            });
    paths.addAll(pieces);
    paths.addAll(lists);
    host.sight()
        .ahead(
            new Glance()
                .facts(paths)
                .wholes(pieces.stream().filter(StockTaker::isXml).toList(), XmlDocument.MOST_BYTES)
                .digests(pieces)
                .lists(lists)
                .place(told));
    Map<Path, Facts> facts = new HashMap<>();
    files.facts(List.copyOf(paths)).forEach(found -> facts.put(found.path(), found));
    Map<Path, String> digests = digests(pieces, facts);
    Map<Path, byte[]> texts = texts(reads, pieces, facts);
    secrets.ifPresent(hiding -> texts.forEach((file, text) -> hide(file, text, hiding)));
    Path owned = facts.get(told).isFolder() ? told : server.folder();
    Presence presence = presence();
    Set<Integer> ports = host.processes().ports(processes(presence, texts)).orElse(Set.of());
    return new Stock(
        server,
        owned,
        facts,
        digests,
        texts,
        files.lists(lists),
        presence,
        listening(),
        ports,
        standing,
        java());
  }

  /** A text that was looked through already, as most are at the next look, is not again. */
  private void hide(Path file, byte[] text, Secrets hiding) {
    if (!hiding.isNew(file.toString(), text)) {
      return;
    }
    kind.secrets(file, text).entrySet().stream()
        .filter(secret -> !WellKnown.contains(secret.getKey()))
        .forEach(secret -> hiding.hideIfNew(secret.getKey(), secret.getValue()));
    HiddenValues.in(file.toString(), new String(text, StandardCharsets.UTF_8), hiding);
  }

  private List<Path> reads(HostFiles files) {
    List<Path> reads = new ArrayList<>(kind.reads(server));
    List<Among> further = kind.readsAmong(server);
    if (further.isEmpty()) {
      return reads;
    }
    for (Among among : further) {
      files.list(among.folder()).stream().filter(among::contains).sorted().forEach(reads::add);
    }
    host.sight().ahead(new Glance().facts(reads).wholes(reads, XmlDocument.MOST_BYTES));
    return reads;
  }

  private List<Identity> processes(Presence presence, Map<Path, byte[]> texts) {
    List<Identity> processes = new ArrayList<>(kind.processes().noted(server, texts));
    presence.found().map(Running::identity).ifPresent(processes::add);
    return processes;
  }

  /** A server takes away what it made whenever it likes, also between two looks at it. */
  private Map<Path, String> digests(Set<Path> pieces, Map<Path, Facts> facts) {
    List<Path> files = filesOf(pieces, facts);
    Map<Path, String> digests = host.files().digests(files);
    files.stream()
        .filter(file -> !digests.containsKey(file))
        .forEach(gone -> facts.put(gone, Facts.absent(gone)));
    return digests;
  }

  private Map<Path, byte[]> texts(List<Path> asked, Set<Path> pieces, Map<Path, Facts> facts) {
    Set<Path> wanted = new LinkedHashSet<>(asked);
    pieces.stream()
        .filter(path -> isXml(path) || facts.get(path).size() < 1 << 16)
        .forEach(wanted::add);
    return host.files().wholes(filesOf(wanted, facts), XmlDocument.MOST_BYTES);
  }

  private static boolean isXml(Path file) {
    return file.toString().endsWith(".xml");
  }

  private static List<Path> filesOf(Set<Path> wanted, Map<Path, Facts> facts) {
    return wanted.stream().filter(path -> facts.get(path).isFile()).toList();
  }

  private Map<Integer, Listening> listening() {
    Map<Integer, Listening> listening = new HashMap<>();
    List<Integer> ports = new ArrayList<>(server.ports().all());
    server.front().ifPresent(front -> ports.add(front.port()));
    for (int port : ports) {
      Fact<Optional<Listening>> listener =
          host.processes().listening(port, server.ports().address());
      listener
          .unread()
          .ifPresent(
              why -> {
                throw new HostException("Cannot tell who listens on port " + port + ": " + why);
              });
      listener.orElse(Optional.empty()).ifPresent(found -> listening.put(port, found));
    }
    return listening;
  }

  /** Whether the server runs: as we started it, as its unit did, or as somebody else did. */
  public Presence presence() {
    return host.sight()
        .once(
            () -> {
              host.sight().ahead(running());
              return presenceSeen();
            });
  }

  /** What taking stock of every server like this reads. */
  public Glance usual() {
    return running()
        .and(whatStands())
        .wholes(kind.reads(server), XmlDocument.MOST_BYTES)
        .lists(kind.readsAmong(server).stream().map(Among::folder).toList())
        .part(ServerJava.release(server.runtime().java()), 0, ServerJava.MOST_BYTES)
        .place(server.folder());
  }

  /** What {@link #standing} is going to read. */
  public Glance whatStands() {
    return new Glance().wholes(List.of(records().standing()), MOST_RECORD_BYTES);
  }

  /** What {@link #presence} is going to read. */
  public Glance running() {
    return new Glance().wholes(List.of(records().process()), MOST_RECORD_BYTES).processes();
  }

  private Presence presenceSeen() {
    Optional<ProcessRecord> record = record();
    Presence ours = record.map(this::started).orElse(new Presence.Stopped());
    if (!ours.isStopped()) {
      return ours;
    }
    Presence byUnit =
        record
            .filter(noted -> server.boot().isPresent())
            .map(noted -> withToken(noted, BootUnit.token(server)))
            .orElse(new Presence.Stopped());
    return byUnit.isStopped() ? startedBySomebody() : byUnit;
  }

  private Presence started(ProcessRecord record) {
    if (record.identity() == null) {
      Presence begun = withToken(record, record.token());
      boolean byCommand = server.steering().hasItsOwn();
      return byCommand && begun.found().isPresent()
          ? new Presence.Unknown("its start command has not ended")
          : begun;
    }
    return switch (host.processes().life(record.identity())) {
      case RUNS -> new Presence.Runs(record.running(record.identity()));
      case GONE -> new Presence.Stopped();
      case UNKNOWN ->
          new Presence.Unknown(
              "what became of process " + record.identity().pid() + " cannot be read");
    };
  }

  private Presence withToken(ProcessRecord record, String token) {
    Optional<String> argument = record.argument(token);
    return argument.isEmpty()
        ? new Presence.Stopped()
        : presence(
            host.processes()
                .programs(argument.get())
                .map(found -> found.stream().map(at -> record.running(at.identity())).findFirst()));
  }

  /** Whoever's process in this very folder, whatever its path was called. */
  public Presence startedBySomebody() {
    return presence(
        new Serving(host, kind)
            .of(host.files().real(server.folder()))
            .map(found -> found.stream().map(this::another).findFirst()));
  }

  private Running another(Program program) {
    return new Running(
        program.identity(),
        "",
        program.arguments(),
        host.processes().output(program.identity()),
        false);
  }

  /** Processes that are hidden cannot serve a port on which nobody listens. */
  private Presence presence(Fact<Optional<Running>> found) {
    if (found.unread().isEmpty()) {
      return found
          .orElse(Optional.empty())
          .<Presence>map(Presence.Runs::new)
          .orElse(new Presence.Stopped());
    }
    boolean nobodyListens =
        host.processes()
            .listening(server.ports().http(), server.ports().address())
            .map(Optional::isEmpty)
            .orElse(false);
    return nobodyListens
        ? new Presence.Stopped()
        : new Presence.Unknown(found.unread().orElseThrow());
  }

  /**
   * What we noted of the server's last start.
   *
   * @throws RecordsException when our note cannot be read
   */
  public Optional<ProcessRecord> record() {
    return record(records().process(), ProcessRecord.class);
  }

  /**
   * What we answer for.
   *
   * @throws RecordsException when our record cannot be read
   */
  public Standing standing() {
    Standing standing = record(records().standing(), Standing.class).orElse(Standing.NONE);
    String here = server.folder().toString();
    if (!standing.folder().isEmpty() && !standing.folder().equals(here)) {
      throw new RecordsException(
          "Cannot go on: what stands in '"
              + here
              + "' was delivered when this folder was '"
              + standing.folder()
              + "', and paths in it lead there. Nothing was touched. Put it back to that place, or"
              + " the link to it, or take out by hand what was delivered and run 'jolly recover"
              + " --on "
              + server.name()
              + " --set-aside'");
    }
    return standing;
  }

  private <T> Optional<T> record(Path file, Class<T> type) {
    return host.files().wholeIfThere(file, MOST_RECORD_BYTES).map(bytes -> read(file, bytes, type));
  }

  private <T> T read(Path file, byte[] bytes, Class<T> type) {
    return Json.read(bytes, type)
        .orElseThrow(
            () ->
                new RecordsException(
                    "Cannot read '"
                        + file
                        + "': it is not as we wrote it ("
                        + bytes.length
                        + " bytes). Nothing was touched. Put it back from a copy, or put the"
                        + " server's files right by hand and run 'jolly recover --on "
                        + server.name()
                        + " --set-aside'"));
  }

  private Records records() {
    return new Records(server.records());
  }
}

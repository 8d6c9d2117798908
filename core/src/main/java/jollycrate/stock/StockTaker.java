package jollycrate.stock;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import jollycrate.boot.BootUnit;
import jollycrate.host.Fact;
import jollycrate.host.Facts;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.host.Identity;
import jollycrate.host.Listening;
import jollycrate.host.Program;
import jollycrate.json.Json;
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
  private final int javaFeature;

  /** For one server. */
  public StockTaker(Host host, ServerKind kind, Server server) {
    this.host = host;
    this.kind = kind;
    this.server = server;
    this.javaFeature = ServerJava.feature(host, server.runtime().java());
  }

  /** Feature release of the Java that the server runs on. */
  public int java() {
    return javaFeature;
  }

  /**
   * What stands there now.
   *
   * @param alsoAt further paths to look at
   */
  public Stock take(Collection<Path> alsoAt) {
    HostFiles files = host.files();
    List<Path> reads = kind.reads(server);
    Standing standing = standing();
    Set<Path> paths = new LinkedHashSet<>(List.of(server.folder()));
    paths.addAll(reads);
    standing.pieces().keySet().forEach(key -> paths.add(Keys.path(server, key)));
    standing.applications().forEach(owner -> paths.addAll(owner.placement().traces()));
    paths.addAll(alsoAt);
    Map<Path, Facts> facts = new HashMap<>();
    files.facts(List.copyOf(paths)).forEach(found -> facts.put(found.path(), found));
    Map<Path, byte[]> texts = texts(reads, alsoAt, standing, facts);
    List<Path> lists = kind.lists(server, texts);
    Path told = kind.owned(server, texts);
    Path owned = files.facts(told).isFolder() ? told : server.folder();
    files.facts(lists).forEach(found -> facts.put(found.path(), found));
    facts.put(owned, files.facts(owned));
    Presence presence = presence();
    Set<Integer> ports = host.processes().ports(processes(presence, texts)).orElse(Set.of());
    return new Stock(
        server,
        owned,
        facts,
        digests(standing, alsoAt, facts),
        texts,
        host.files().lists(lists),
        presence,
        listening(),
        ports,
        standing,
        javaFeature);
  }

  private List<Identity> processes(Presence presence, Map<Path, byte[]> texts) {
    List<Identity> processes = new ArrayList<>(kind.processes().noted(server, texts));
    presence.found().map(Running::identity).ifPresent(processes::add);
    return processes;
  }

  private Map<Path, String> digests(
      Standing standing, Collection<Path> alsoAt, Map<Path, Facts> facts) {
    Set<Path> wanted = new LinkedHashSet<>(alsoAt);
    standing.pieces().keySet().forEach(key -> wanted.add(Keys.path(server, key)));
    return host.files().digests(filesOf(wanted, facts));
  }

  private Map<Path, byte[]> texts(
      List<Path> asked, Collection<Path> alsoAt, Standing standing, Map<Path, Facts> facts) {
    Set<Path> wanted = new LinkedHashSet<>(asked);
    Stream.concat(
            alsoAt.stream(), standing.pieces().keySet().stream().map(key -> Keys.path(server, key)))
        .filter(path -> path.toString().endsWith(".xml") || facts.get(path).size() < 1 << 16)
        .forEach(wanted::add);
    return host.files().wholes(filesOf(wanted, facts), XmlDocument.MOST_BYTES);
  }

  private static List<Path> filesOf(Set<Path> wanted, Map<Path, Facts> facts) {
    return wanted.stream().filter(path -> facts.get(path).isFile()).toList();
  }

  private Map<Integer, Listening> listening() {
    Map<Integer, Listening> listening = new HashMap<>();
    List<Integer> ports = new ArrayList<>(server.ports().all());
    server.front().ifPresent(front -> ports.add(front.port()));
    for (int port : ports) {
      Fact<Optional<Listening>> listener = host.processes().listening(port);
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
          ? new Presence.Unknown("what its start command comes to, which has not ended")
          : begun;
    }
    return switch (host.processes().life(record.identity())) {
      case RUNS -> new Presence.Runs(record.running(record.identity()));
      case GONE -> new Presence.Stopped();
      case UNKNOWN -> new Presence.Unknown("whether process " + record.identity().pid() + " lives");
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
        serving(host, kind, host.files().real(server.folder()))
            .map(found -> found.stream().map(this::another).findFirst()));
  }

  /**
   * Processes of a kind that serve a folder, whoever started them.
   *
   * @param folder as it really is, through links
   */
  public static Fact<List<Program>> serving(Host host, ServerKind kind, Path folder) {
    return host.processes()
        .programs(kind.processes().mark())
        .map(
            found ->
                found.stream()
                    .filter(
                        program ->
                            kind.processes()
                                .folder(program.arguments())
                                .filter(Path::isAbsolute)
                                .filter(its -> host.files().real(its).equals(folder))
                                .isPresent())
                    .toList());
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
        host.processes().listening(server.ports().http()).map(Optional::isEmpty).orElse(false);
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
    if (!host.files().facts(file).exists()) {
      return Optional.empty();
    }
    byte[] bytes = host.files().whole(file, MOST_RECORD_BYTES);
    return Optional.of(
        Json.read(bytes, type)
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
                            + " --set-aside'")));
  }

  private Records records() {
    return new Records(server.records());
  }
}

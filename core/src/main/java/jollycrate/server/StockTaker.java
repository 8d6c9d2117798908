package jollycrate.server;

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
import jollycrate.artifact.XmlDocument;
import jollycrate.host.Facts;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.Identity;
import jollycrate.host.Listening;

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
    this.javaFeature = ServerJava.feature(host, server.java());
  }

  /**
   * What stands there now.
   *
   * @param alsoAt further paths to look at
   */
  public Stock take(Collection<Path> alsoAt) {
    HostFiles files = host.files();
    Reads reads = kind.reads(server);
    Standing standing = standing();
    Set<Path> paths = new LinkedHashSet<>(List.of(server.folder()));
    paths.addAll(reads.texts());
    paths.addAll(reads.folders());
    standing.pieces().keySet().forEach(key -> paths.add(Keys.path(server, key)));
    standing.applications().forEach(owner -> paths.addAll(owner.placement().traces()));
    paths.addAll(alsoAt);
    Map<Path, Facts> facts = new HashMap<>();
    files.facts(List.copyOf(paths)).forEach(found -> facts.put(found.path(), found));
    Map<Path, byte[]> texts = texts(reads.texts(), standing, facts);
    return new Stock(
        server,
        facts,
        digests(standing, alsoAt, facts),
        texts,
        children(reads.folders()),
        running(),
        listening(),
        host.processes().ports(processes(texts)),
        standing,
        javaFeature);
  }

  private List<Identity> processes(Map<Path, byte[]> texts) {
    List<Identity> processes = new ArrayList<>(kind.processes().noted(server, texts));
    running().map(Running::identity).ifPresent(processes::add);
    return processes;
  }

  private Map<Path, String> digests(
      Standing standing, Collection<Path> alsoAt, Map<Path, Facts> facts) {
    Set<Path> wanted = new LinkedHashSet<>(alsoAt);
    standing.pieces().keySet().forEach(key -> wanted.add(Keys.path(server, key)));
    Map<Path, String> digests = new HashMap<>();
    for (Path path : wanted) {
      if (facts.get(path).isFile()) {
        digests.put(path, host.files().digest(path));
      }
    }
    return digests;
  }

  private Map<Path, byte[]> texts(List<Path> asked, Standing standing, Map<Path, Facts> facts) {
    Set<Path> wanted = new LinkedHashSet<>(asked);
    standing.pieces().keySet().stream()
        .map(key -> Keys.path(server, key))
        .filter(path -> path.toString().endsWith(".xml") || facts.get(path).size() < 1 << 16)
        .forEach(wanted::add);
    Map<Path, byte[]> texts = new HashMap<>();
    for (Path path : wanted) {
      if (facts.get(path).isFile()) {
        texts.put(path, host.files().read(path, 0, XmlDocument.MOST_BYTES));
      }
    }
    return texts;
  }

  private Map<Path, List<Path>> children(List<Path> folders) {
    Map<Path, List<Path>> children = new HashMap<>();
    folders.forEach(folder -> children.put(folder, host.files().list(folder)));
    return children;
  }

  private Map<Integer, Listening> listening() {
    Map<Integer, Listening> listening = new HashMap<>();
    List<Integer> ports = new ArrayList<>(server.ports());
    server.front().ifPresent(front -> ports.add(front.port()));
    for (int port : ports) {
      host.processes().listening(port).ifPresent(found -> listening.put(port, found));
    }
    return listening;
  }

  /** The server's process, if it runs. */
  public Optional<Running> running() {
    Optional<ProcessRecord> record = record();
    return record
        .flatMap(noted -> noted.running(host.processes()))
        .or(() -> record.flatMap(this::startedWithTheMachine));
  }

  /** systemd starts the server by the same command. */
  private Optional<Running> startedWithTheMachine(ProcessRecord record) {
    return server
        .boot()
        .flatMap(boot -> host.processes().withToken(BootUnit.token(server)))
        .map(found -> new Running(found, record.fingerprint(), record.command()));
  }

  /** What we noted of the server's last start. */
  public Optional<ProcessRecord> record() {
    byte[] record = host.files().read(records().process(), 0, MOST_RECORD_BYTES);
    return Json.read(record, ProcessRecord.class);
  }

  /**
   * What we answer for.
   *
   * @throws RecordsException when our record cannot be read
   */
  public Standing standing() {
    byte[] bytes = host.files().read(records().standing(), 0, MOST_RECORD_BYTES);
    if (bytes.length == 0) {
      return Standing.NONE;
    }
    return Json.read(bytes, Standing.class)
        .orElseThrow(
            () ->
                new RecordsException(
                    "Cannot read '"
                        + records().standing()
                        + "': it is not as we wrote it ("
                        + new String(bytes, StandardCharsets.UTF_8).lines().count()
                        + " lines). Put it back from a copy"));
  }

  private Records records() {
    return new Records(server.records());
  }
}

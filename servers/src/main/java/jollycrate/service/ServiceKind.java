package jollycrate.service;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ClassPathPlace;
import jollycrate.artifact.ServletNamespace;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.secret.Secrets;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
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

/**
 * A service: a folder whose keeper runs one executable artifact as a program of its own. The keeper
 * does what the files in {@code programs/} say, so a delivery is a change of files here too.
 */
public final class ServiceKind implements ServerKind {
  private static final String KEEPER = "jollycrate/keeper/Keeper.class";

  /** Folders of its own. */
  static final List<String> FOLDERS =
      List.of("keeper", "releases", "settings", "programs", "log", "state");

  @Override
  public String name() {
    return "service";
  }

  @Override
  public Optional<Traits> recognise(HostFiles files, Path installation) {
    return files.facts(installation.resolve("keeper/keeper.jar")).isFile()
        ? Optional.of(traits())
        : Optional.empty();
  }

  @Override
  public List<Traits> lines() {
    return List.of(traits());
  }

  private static Traits traits() {
    return new Traits(
        "service",
        Set.of(ArtifactKind.EXECUTABLE_JAR, ArtifactKind.EXECUTABLE_WAR),
        ServletNamespace.NONE,
        8,
        Set.of(Swap.LIVE, Swap.BESIDE_THEN_SWITCH),
        new Traits.Folders(List.of("log", "state"), FOLDERS, Path.of("state", "events")),
        Set.of(),
        Set.of());
  }

  @Override
  public List<Piece> instance(HostFiles files, Server server, Access access) {
    List<Piece> pieces = new ArrayList<>();
    for (String folder : FOLDERS) {
      pieces.add(new Piece.Folder(server.folder().resolve(folder), access.with("rwxr-x---")));
    }
    pieces.add(
        new Piece.WholeFile(
            new ServiceFiles(server).keeper(),
            keeper(),
            access.with("rw-r-----"),
            Part.SUPPORT,
            PickUp.RESTART));
    return pieces;
  }

  /** The keeper's archive; made here when its classes stand in a folder, as while we are built. */
  private static Content keeper() {
    Path place = ClassPathPlace.of(KEEPER);
    if (!Files.isDirectory(place)) {
      return Content.of(place);
    }
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (JarOutputStream jar = new JarOutputStream(bytes);
        Stream<Path> files = Files.walk(place)) {
      for (Path file : files.filter(Files::isRegularFile).sorted().toList()) {
        JarEntry entry = new JarEntry(place.relativize(file).toString());
        entry.setTimeLocal(LocalDateTime.of(2000, 1, 1, 0, 0));
        jar.putNextEntry(entry);
        jar.write(Files.readAllBytes(file));
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return Content.of(bytes.toByteArray());
  }

  @Override
  public List<Path> reads(Server server) {
    ServiceFiles files = new ServiceFiles(server);
    List<Path> texts = new ArrayList<>();
    for (int port : server.ports().all()) {
      texts.add(files.run(port));
      texts.add(files.note(port));
    }
    server.front().ifPresent(front -> texts.add(front.config()));
    return texts;
  }

  @Override
  public List<Path> lists(Server server, Map<Path, byte[]> texts) {
    ServiceFiles files = new ServiceFiles(server);
    return List.of(files.run(), files.logs());
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    return stock.standing().applications().stream()
        .map(
            owner ->
                new Occupant(
                    owner.placement().route().listener(),
                    owner.placement().route().contextPath(),
                    owner.placement().switchPath(),
                    true))
        .toList();
  }

  @Override
  public Wanted wanted(Stock stock, Order order) {
    return new ServicePlacement(stock, order).wanted();
  }

  @Override
  public Sign sign(Stock stock, Placement placement, Expected expected, Evidence evidence) {
    Path run = new ServiceFiles(stock.server()).run(placement);
    return new ProgramSigns(
            placement,
            evidence,
            stock.digests().getOrDefault(run, ""),
            stock.text(run).map(RunText::read).map(values -> values.getProperty("ready", "")))
        .sign(expected);
  }

  @Override
  public Map<String, String> secrets(Path file, byte[] text) {
    return file.toString().endsWith(ServiceFiles.RUN)
        ? RunText.secretsIn(new String(text, StandardCharsets.UTF_8)).stream()
            .collect(Collectors.toMap(value -> value, value -> Secrets.HIDDEN, (a, b) -> a))
        : Map.of();
  }

  @Override
  public KindProcesses processes() {
    return new ServiceProcesses();
  }

  @Override
  public KindLogs logs() {
    return new ServiceLogs();
  }

  @Override
  public Optional<Splicer> splicer(Path file) {
    return Optional.of(new UpstreamSplicer());
  }
}

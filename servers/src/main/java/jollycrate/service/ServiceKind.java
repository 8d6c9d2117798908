package jollycrate.service;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.LocalDateTime;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ClassPathPlace;
import jollycrate.artifact.ServletNamespace;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.log.LogTail;
import jollycrate.server.Cause;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.LogPlace;
import jollycrate.server.Occupant;
import jollycrate.server.Order;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Reads;
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
 * does what the files in {@code run/} say, so a delivery is a change of files here too.
 */
public final class ServiceKind implements ServerKind {
  private static final String KEEPER = "jollycrate/keeper/Keeper.class";
  private static final String KEEPER_MAIN = "jollycrate.keeper.Keeper";

  /** Folders of its own. */
  static final List<String> FOLDERS =
      List.of("keeper", "releases", "settings", "run", "log", "state");

  private static final Duration KEEPER_NEEDS = Duration.ofSeconds(15);
  private static final Pattern NOTE = Pattern.compile("(\\d+) (\\d+) (\\S+)\\s*");

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

  private static Traits traits() {
    return new Traits(
        "service",
        Set.of(ArtifactKind.EXECUTABLE_JAR, ArtifactKind.EXECUTABLE_WAR),
        ServletNamespace.NONE,
        8,
        Set.of(Swap.LIVE, Swap.BESIDE_THEN_SWITCH),
        List.of("log", "state"),
        FOLDERS,
        Path.of("state", "events"),
        false);
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
  public Reads reads(Server server) {
    ServiceFiles files = new ServiceFiles(server);
    List<Path> texts = new ArrayList<>();
    for (int port : server.ports()) {
      texts.add(files.run(port));
      texts.add(files.note(port));
    }
    server.front().ifPresent(front -> texts.add(front.config()));
    return new Reads(texts, List.of(files.run(), files.logs()));
  }

  @Override
  public List<Identity> noted(Server server, Map<Path, byte[]> texts) {
    List<Identity> noted = new ArrayList<>();
    for (int port : server.ports()) {
      byte[] text = texts.getOrDefault(new ServiceFiles(server).note(port), new byte[0]);
      Matcher note = NOTE.matcher(new String(text, StandardCharsets.UTF_8));
      if (note.matches()) {
        noted.add(
            new Identity(
                note.group(3), Long.parseLong(note.group(1)), Long.parseLong(note.group(2))));
      }
    }
    return noted;
  }

  @Override
  public Launch launch(Stock stock) {
    Server server = stock.server();
    ServiceFiles files = new ServiceFiles(server);
    List<String> command =
        List.of(
            server.javaProgram().toString(),
            "-Xmx24m",
            "-Xss256k",
            "-XX:+UseSerialGC",
            "-XX:TieredStopAtLevel=1",
            "-Djolly.token=" + Launch.TOKEN,
            "-cp",
            files.keeper().toString(),
            KEEPER_MAIN,
            server.folder().toString());
    return new Launch(
        command,
        server.folder(),
        server.environment(),
        server.declared(),
        files.logs().resolve("keeper.log"),
        List.of());
  }

  @Override
  public List<Occupant> occupants(Stock stock) {
    return stock.standing().applications().stream()
        .map(
            owner ->
                new Occupant(
                    owner.placement().listener(),
                    owner.placement().contextPath(),
                    owner.placement().switchPath()))
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
  public Optional<LogPlace> output(
      HostFiles files, Server server, Placement placement, String log) {
    String name = String.valueOf(placement.direct().getPort());
    return KeeperEvents.of(name, log).begun().map(begun -> place(files, server, begun));
  }

  /** Parts that are too old are gone; then the oldest one that is left. */
  private static LogPlace place(HostFiles host, Server server, KeeperEvents.Begun begun) {
    ServiceFiles files = new ServiceFiles(server);
    Path end = files.log(begun.log());
    Path first =
        host.list(files.logs()).stream()
            .filter(file -> LogTail.end(file).equals(end))
            .filter(file -> LogTail.number(file) >= begun.number())
            .min(Comparator.comparingInt(LogTail::number))
            .orElse(end);
    boolean whole = !first.equals(end) && LogTail.number(first) > begun.number();
    return new LogPlace(first, whole ? 0 : begun.offset());
  }

  @Override
  public Duration endsWithin(Stock stock) {
    ServiceFiles files = new ServiceFiles(stock.server());
    long longest =
        stock.server().ports().stream()
            .flatMap(port -> stock.text(files.run(port)).stream())
            .map(text -> RunText.read(text).getProperty("stop.within", ""))
            .filter(seconds -> seconds.matches("\\d{1,6}"))
            .mapToLong(Long::parseLong)
            .max()
            .orElse(0);
    return Duration.ofSeconds(longest).plus(KEEPER_NEEDS);
  }

  @Override
  public Optional<Cause> down(Server server, Placement placement, String log) {
    return ProgramSigns.down(server.name(), placement, log);
  }

  @Override
  public List<Cause> remarks(Server server, Placement placement, String log) {
    String name = String.valueOf(placement.direct().getPort());
    String lost = KeeperEvents.of(name, log).unlogged();
    return lost.isEmpty()
        ? List.of()
        : List.of(
            Cause.of(
                "its log cannot be written, and lines were lost: " + lost,
                "Make room for '" + new ServiceFiles(server).logs() + "'"));
  }

  @Override
  public List<Path> logs(Stock stock) {
    ServiceFiles files = new ServiceFiles(stock.server());
    return stock.children().getOrDefault(files.logs(), List.of()).stream()
        .filter(file -> !file.getFileName().toString().equals("keeper.log"))
        .filter(file -> file.toString().endsWith(".log"))
        .sorted(Comparator.comparing(file -> file.equals(LogTail.end(file))))
        .toList();
  }

  @Override
  public Optional<Cause> explain(List<String> packages, String log) {
    return new ProgramFailure(packages).in(log);
  }

  @Override
  public Optional<Splicer> splicer(Path file) {
    return Optional.of(new UpstreamSplicer());
  }
}

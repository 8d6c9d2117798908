package jollycrate.site;

import java.io.IOException;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.ServiceLoader.Provider;
import java.util.stream.Collectors;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ServerEntry;
import jollycrate.file.IoReason;
import jollycrate.host.Glance;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.Program;
import jollycrate.server.KindFault;
import jollycrate.server.ServerKind;
import jollycrate.server.Traits;
import jollycrate.stock.Serving;

/** The server kinds that are there. */
public final class Kinds {
  private final List<ServerKind> kinds;

  /** All that the program finds among its archives, and in those that people put beside it. */
  public Kinds() {
    mustBeKinds();
    try {
      kinds = ServiceLoader.load(ServerKind.class).stream().map(Provider::get).toList();
    } catch (ServiceConfigurationError | LinkageError e) {
      throw new NotDescribedException(
          "Cannot use a server kind in the folder 'kinds' of Jolly Crate: "
              + e.getMessage()
              + ". Build it for this version, or take its archive out");
    }
  }

  /** The class path passes over a file that is no archive, so that nobody would miss its kind. */
  private static void mustBeKinds() {
    String home = System.getProperty("jolly.home", "");
    Path folder = Path.of(home).resolve(KindFault.FOLDER);
    if (home.isEmpty() || !Files.isDirectory(folder)) {
      return;
    }
    try (DirectoryStream<Path> archives = Files.newDirectoryStream(folder, "*.jar")) {
      for (Path archive : archives) {
        mustBeArchive(archive);
      }
    } catch (IOException e) {
      throw new NotDescribedException(
          "Cannot read the server kinds in '" + folder + "': " + IoReason.of(e));
    }
  }

  private static void mustBeArchive(Path archive) throws IOException {
    try (ZipFile zip = new ZipFile(archive.toFile())) {
      if (zip.getEntry("META-INF/services/" + ServerKind.class.getName()) == null) {
        throw cannot(archive, "it announces none in META-INF/services");
      }
    } catch (ZipException e) {
      throw cannot(archive, e.getMessage());
    }
  }

  private static NotDescribedException cannot(Path archive, String why) {
    return new NotDescribedException(
        "Cannot use '"
            + archive
            + "' as a server kind: "
            + why
            + ". Copy it there again, or take"
            + " it out");
  }

  /** A kind that recognised an installation. */
  record Recognised(ServerKind kind, Traits traits) {}

  /** What is true of each line of versions of every kind. */
  public List<Traits> lines() {
    return kinds.stream().flatMap(kind -> kind.lines().stream()).toList();
  }

  /** The kind that {@code servers.toml} tells by that name of a server. */
  ServerKind named(String name, String server) {
    return kinds.stream()
        .filter(kind -> kind.name().equals(name))
        .findFirst()
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot use '"
                        + name
                        + "' as the kind of server '"
                        + server
                        + "': by name is known "
                        + String.join(", ", names())
                        + ". Every other kind is told by 'installation' alone: take 'kind' out"));
  }

  /** Name of a kind whose servers run programs by themselves. */
  String forPrograms() {
    return names().get(0);
  }

  private List<String> names() {
    return kinds.stream().map(ServerKind::name).filter(name -> !name.isEmpty()).toList();
  }

  /** The kind of a described server, as it stands in its folder. */
  Recognised of(ServerEntry entry, HostFiles files, Path installation) {
    return entry
        .kind()
        .map(told -> named(told, entry.name()))
        .map(kind -> new Recognised(kind, traits(kind, files, installation)))
        .orElseGet(() -> recognise(files, installation));
  }

  private static Traits traits(ServerKind kind, HostFiles files, Path folder) {
    return kind.recognise(files, folder)
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot use '"
                        + folder
                        + "' as a server of kind '"
                        + kind.name()
                        + "': what such a server holds does not stand there. Fix 'folder' in"
                        + " servers.toml"));
  }

  /** A process that serves a folder, whoever started it; empty when none is seen. */
  Optional<Program> running(Host host, Path folder) {
    Path real = host.files().real(folder);
    return kinds.stream()
        .flatMap(kind -> new Serving(host, kind).of(real).orElse(List.of()).stream())
        .findFirst();
  }

  /** Where the server of a process is installed, as its arguments tell. */
  Optional<Path> installationOf(Program process) {
    return kinds.stream()
        .filter(kind -> kind.processes().isOne(process.arguments()))
        .flatMap(kind -> kind.processes().installation(process.arguments()).stream())
        .findFirst();
  }

  /** What {@link #recognise} is going to read. */
  Glance recognising(Path installation) {
    Glance glance = new Glance();
    kinds.forEach(kind -> glance.and(kind.recognising(installation)));
    return glance;
  }

  /** The installation of a kind known here that a path is, if it is one. */
  Optional<Recognised> recognised(HostFiles files, Path installation) {
    for (ServerKind kind : kinds) {
      Optional<Traits> traits = kind.recognise(files, installation);
      if (traits.isPresent()) {
        return Optional.of(new Recognised(kind, traits.get()));
      }
    }
    return Optional.empty();
  }

  Recognised recognise(HostFiles files, Path installation) {
    return recognised(files, installation)
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot use '"
                        + installation
                        + "' as an installation: "
                        + whyNot(files, installation)
                        + ". Fix 'installation' in servers.toml, or give the folder of another"));
  }

  /** Why an installation is none that any kind recognises. */
  String whyNot(HostFiles files, Path installation) {
    return unsupported(files, installation)
        .orElseGet(() -> "it is no server of a kind known here (" + labels(lines()) + ")");
  }

  /** Why not, where it is a known server in another version. */
  Optional<String> unsupported(HostFiles files, Path installation) {
    for (ServerKind kind : kinds) {
      Optional<String> label = kind.unsupported(files, installation);
      if (label.isPresent()) {
        return label.map(found -> "it is " + found + "; supported is " + labels(kind.lines()));
      }
    }
    return Optional.empty();
  }

  private static String labels(List<Traits> lines) {
    return lines.stream()
        .filter(Traits::hosts)
        .map(Traits::label)
        .collect(Collectors.joining(", "));
  }
}

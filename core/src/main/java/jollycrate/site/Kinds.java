package jollycrate.site;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.ServiceConfigurationError;
import java.util.ServiceLoader;
import java.util.ServiceLoader.Provider;
import java.util.stream.Collectors;
import jollycrate.app.NotDescribedException;
import jollycrate.host.Glance;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.Program;
import jollycrate.server.ServerKind;
import jollycrate.server.Traits;
import jollycrate.stock.Serving;

/** The server kinds that are there. */
public final class Kinds {
  private final List<ServerKind> kinds;

  /** All that the program finds among its archives, and in those that people put beside it. */
  public Kinds() {
    try {
      kinds = ServiceLoader.load(ServerKind.class).stream().map(Provider::get).toList();
    } catch (ServiceConfigurationError | LinkageError e) {
      throw new NotDescribedException(
          "Cannot use a server kind in the folder 'kinds' of Jolly Crate: "
              + e.getMessage()
              + ". Build it for this version, or take its archive out");
    }
  }

  /** A kind that recognised an installation. */
  record Recognised(ServerKind kind, Traits traits) {}

  /** What is true of each line of versions of every kind. */
  public List<Traits> lines() {
    return kinds.stream().flatMap(kind -> kind.lines().stream()).toList();
  }

  /** The kind that {@code servers.toml} tells by that name. */
  ServerKind named(String name) {
    return kinds.stream().filter(kind -> kind.name().equals(name)).findFirst().orElseThrow();
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

  Recognised recognise(HostFiles files, Path installation) {
    for (ServerKind kind : kinds) {
      Optional<Traits> traits = kind.recognise(files, installation);
      if (traits.isPresent()) {
        return new Recognised(kind, traits.get());
      }
    }
    String known =
        lines().stream().filter(Traits::hosts).map(Traits::label).collect(Collectors.joining(", "));
    throw new NotDescribedException(
        "Cannot use '"
            + installation
            + "' as an installation: it is no server of a kind known here ("
            + known
            + "). Fix 'installation' in servers.toml, or give the folder of another");
  }
}

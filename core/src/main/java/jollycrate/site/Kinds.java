package jollycrate.site;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.ServiceLoader;
import jollycrate.app.NotDescribedException;
import jollycrate.host.HostFiles;
import jollycrate.server.ServerKind;
import jollycrate.server.Traits;

/** The server kinds that are there. */
public final class Kinds {
  private final List<ServerKind> kinds =
      ServiceLoader.load(ServerKind.class).stream().map(ServiceLoader.Provider::get).toList();

  /** A kind that recognised an installation. */
  record Recognised(ServerKind kind, Traits traits) {}

  /** The kind that {@code servers.toml} tells by that name. */
  ServerKind named(String name) {
    return kinds.stream().filter(kind -> kind.name().equals(name)).findFirst().orElseThrow();
  }

  Recognised recognise(HostFiles files, Path installation) {
    for (ServerKind kind : kinds) {
      Optional<Traits> traits = kind.recognise(files, installation);
      if (traits.isPresent()) {
        return new Recognised(kind, traits.get());
      }
    }
    throw new NotDescribedException(
        "Cannot use '"
            + installation
            + "' as an installation: it is no server of a kind known"
            + " here. Fix 'installation' in servers.toml");
  }
}

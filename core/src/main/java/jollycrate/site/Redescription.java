package jollycrate.site;

import java.io.IOException;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ProblemsException;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServersEdit;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;

/**
 * A server as it is to be described.
 *
 * @param file {@code servers.toml} as it is to stand; empty when it stands so
 */
public record Redescription(ServerEntry entry, Optional<Piece.WholeFile> file) {
  /** What makes another server of it, or is changed with what is delivered. */
  private static final Set<String> FIXED =
      Set.of("folder", "installation", "service", "beside", "boot", "front");

  /**
   * The description with other values.
   *
   * @param values by key; an empty one takes the key out
   * @throws NotDescribedException when a key cannot be changed so
   */
  public static Redescription of(
      HostFiles files, Path servers, ServerEntry before, Map<String, String> values) {
    for (String key : values.keySet()) {
      if (FIXED.contains(key) || !key.matches("[a-z-]+")) {
        throw new NotDescribedException(
            "Cannot change '"
                + key
                + "' of server '"
                + before.name()
                + "': "
                + (FIXED.contains(key)
                    ? "with another one it would be another server. Change it in servers.toml,"
                        + " then deliver to it"
                    : "that is no key of a value in [server." + before.name() + "]"));
      }
    }
    if (values.isEmpty()) {
      return new Redescription(before, Optional.empty());
    }
    try {
      ServersEdit.Changed changed = ServersEdit.changed(servers, before.name(), values);
      Path real = files.real(servers);
      Piece.WholeFile file =
          new Piece.WholeFile(
              real, Content.of(changed.text()), files.facts(real).access(), Part.OWN, PickUp.LIVE);
      return new Redescription(changed.entry(), Optional.of(file));
    } catch (ProblemsException e) {
      throw new NotDescribedException(
          "Cannot change server '"
              + before.name()
              + "', and nothing was written. With that: "
              + e.getMessage());
    } catch (IOException e) {
      throw new NotDescribedException("Cannot read '" + servers + "': " + e.getMessage());
    }
  }
}

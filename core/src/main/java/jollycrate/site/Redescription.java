package jollycrate.site;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Ports;
import jollycrate.app.ProblemsException;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServersEdit;
import jollycrate.delivery.DescribedBeside;
import jollycrate.file.IoReason;
import jollycrate.host.Content;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.secret.Secrets;
import jollycrate.server.Keystore;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;

/**
 * A server as it is to be described.
 *
 * @param file {@code servers.toml} as it is to stand; empty when it stands so
 * @param before digest of that as it stands
 * @param keystore for HTTPS, where another one is to be put there
 */
public record Redescription(
    ServerEntry entry, Optional<Piece.WholeFile> file, String before, Optional<Keystore> keystore) {
  private static final String CERTIFICATE = "certificate";

  /** What makes another server of it, or is changed with what is delivered. */
  private static final Set<String> FIXED =
      Set.of("folder", "installation", "servlet-api", "kind", "beside", "boot", "front");

  /**
   * The description with other values.
   *
   * @param host the machine that the tool itself runs on
   * @param reached where people reach a server
   */
  public static Redescription of(
      Host host,
      Secrets secrets,
      Function<ServerEntry, Ports> reached,
      Path servers,
      ServerEntry before,
      Map<String, String> values) {
    return of(host.files(), new Keystores(host, secrets, reached), servers, before, values);
  }

  /**
   * The same.
   *
   * @param values by key; an empty one takes the key out
   * @throws NotDescribedException when a key cannot be changed so
   */
  static Redescription of(
      HostFiles files,
      Keystores keystores,
      Path servers,
      ServerEntry before,
      Map<String, String> values) {
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
    try {
      Map<String, String> all = new LinkedHashMap<>(values);
      if ("".equals(all.get("https"))) {
        List.of("keystore", "keystore-password", CERTIFICATE).forEach(key -> all.put(key, ""));
      }
      ServerEntry entry =
          all.isEmpty() ? before : ServersEdit.changed(servers, before.name(), all).entry();
      Optional<Keystore> keystore = keystore(entry, keystores);
      keystore.ifPresent(it -> all.put(CERTIFICATE, it.certificate()));
      if (all.isEmpty()) {
        return new Redescription(before, Optional.empty(), "", Optional.empty());
      }
      Path real = files.real(servers);
      String digest = files.digest(real);
      ServersEdit.Changed changed = ServersEdit.changed(servers, before.name(), all);
      Piece.WholeFile file =
          new Piece.WholeFile(
              real, Content.of(changed.text()), files.facts(real).access(), Part.OWN, PickUp.LIVE);
      return new Redescription(changed.entry(), Optional.of(file), digest, keystore);
    } catch (ProblemsException e) {
      throw new NotDescribedException(
          "Cannot change server '"
              + before.name()
              + "', and nothing was written. With that: "
              + e.getMessage());
    } catch (IOException e) {
      throw new NotDescribedException("Cannot read '" + servers + "': " + IoReason.of(e));
    }
  }

  /** A team's own is put there whenever it is another one; one of ours is made once. */
  private static Optional<Keystore> keystore(ServerEntry entry, Keystores keystores) {
    return entry
        .ports()
        .https()
        .filter(https -> https.keystore().isPresent() || https.certificate().isEmpty())
        .map(
            https -> https.keystore().isPresent() ? keystores.given(https) : keystores.made(entry));
  }

  /** The file for a server on another machine than the one where it stands. */
  public DescribedBeside beside(HostFiles here) {
    return new DescribedBeside(here, file.orElseThrow(), before);
  }
}

package jollycrate.site;

import java.io.IOException;
import java.nio.file.Path;
import java.util.function.Supplier;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ServerEntry;
import jollycrate.app.Setting;
import jollycrate.check.Requester;
import jollycrate.host.Host;
import jollycrate.host.Time;
import jollycrate.server.Server;
import jollycrate.watch.Site;

/** Servers as they are described, with what is needed to handle them. */
public final class Sites {
  private final Host host;
  private final Setting setting;
  private final Kinds kinds;
  private final ServerFoundation foundation;
  private final Supplier<Requester> requesters;

  /**
   * On a machine.
   *
   * @param requesters ask servers over HTTP
   */
  public Sites(
      Host host,
      Setting setting,
      Kinds kinds,
      ServerFoundation foundation,
      Supplier<Requester> requesters) {
    this.host = host;
    this.setting = setting;
    this.kinds = kinds;
    this.foundation = foundation;
    this.requesters = requesters;
  }

  public Site site(ServerEntry entry) {
    setting.mustHandleServers();
    Path installation =
        entry.service()
            ? real(entry.folder())
            : entry.installation().orElseGet(() -> PracticeInstallation.in(setting, entry.javax()));
    Server server = foundation.server(entry, installation, real(entry.folder()));
    if (!host.files().facts(server.folder()).isFolder()) {
      throw new NotDescribedException(
          "Cannot find server '"
              + entry.name()
              + "': there is no folder '"
              + server.folder()
              + "'. Fix 'folder' in servers.toml, or remove the entry and make the server with"
              + " 'jolly server new "
              + entry.name()
              + (entry.service() ? " --as-service'" : "'"));
    }
    Kinds.Recognised recognised = kinds.recognise(host.files(), installation);
    return new Site(
        host,
        recognised.kind(),
        recognised.traits(),
        server,
        Time.system(),
        requesters,
        setting.by());
  }

  /** Where a folder really is: the server's own log and records speak of that path. */
  private static Path real(Path folder) {
    try {
      return folder.toRealPath();
    } catch (IOException absent) {
      return folder;
    }
  }
}

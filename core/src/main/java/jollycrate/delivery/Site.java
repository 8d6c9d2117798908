package jollycrate.delivery;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.Time;
import jollycrate.server.Cause;
import jollycrate.server.LogPlace;
import jollycrate.server.Placement;
import jollycrate.server.Records;
import jollycrate.server.Server;
import jollycrate.server.ServerKind;
import jollycrate.server.StockTaker;
import jollycrate.server.Traits;

/**
 * A server, where it runs and how it is handled.
 *
 * @param by who makes changes, as records name them
 */
public record Site(Host host, ServerKind kind, Traits traits, Server server, Time time, String by) {

  HostFiles files() {
    return host.files();
  }

  /** Our own files in the server's folder. */
  public Records records() {
    return new Records(server.records());
  }

  /** Takes stock of this server. */
  public StockTaker stockTaker() {
    return new StockTaker(host, kind, server);
  }

  Path log() {
    return server.folder().resolve(traits.log());
  }

  long logEnd() {
    return files().facts(log()).size();
  }

  /** Why an application does not run although its server does. */
  Optional<Cause> down(Placement placement) {
    if (traits.listens()) {
      return Optional.empty();
    }
    return kind.logs().down(server, placement, LogSlice.since(this, new LogPlace(log(), 0)).text());
  }

  /** Rights of the records: as readable as the server's folder itself. */
  Access recordAccess() {
    Access folder = files().facts(server.folder()).access();
    String mode = folder.mode();
    String readable =
        "rw-" + (mode.charAt(3) == 'r' ? "r--" : "---") + (mode.charAt(6) == 'r' ? "r--" : "---");
    return folder.with(readable);
  }

  void makeRecordsFolder() {
    if (!files().facts(server.records()).exists()) {
      files().makeFolder(server.records(), files().facts(server.folder()).access());
    }
  }

  /** Deletes what a killed process left among our records; only while no delivery is open. */
  void sweepRecords() {
    Records records = records();
    for (Path path : files().list(records.folder())) {
      String name = path.getFileName().toString();
      boolean half = name.endsWith(".part");
      boolean left = path.equals(records.standingNext()) || path.equals(records.backups());
      if (half || left) {
        deleteTree(path);
      }
    }
  }

  /** Deletes a folder unless something stands in it. */
  void deleteIfEmpty(Path folder) {
    if (files().facts(folder).isFolder() && files().list(folder).isEmpty()) {
      files().delete(folder);
    }
  }

  /** Deletes a path with everything below it; links are deleted, never followed. */
  void deleteTree(Path path) {
    if (files().facts(path).isFolder()) {
      files().list(path).forEach(this::deleteTree);
    }
    files().delete(path);
  }
}

package jollycrate.site;

import java.util.List;
import jollycrate.server.Presence;

/**
 * One described server as it stands now.
 *
 * @param kind label of its kind and version
 * @param pid 0 when it does not run
 * @param trouble what keeps it from being looked at or needs settling; may be empty
 */
public record ServerState(
    String name,
    String kind,
    String folder,
    String address,
    int admin,
    Fare fare,
    long pid,
    List<Standing> applications,
    String trouble) {

  /** An application that stands there. */
  public record Standing(String name, String version, String address) {}

  /** Whether its process runs. */
  public enum Fare {
    RUNS,
    /** It runs, and somebody else started it. */
    STARTED_BY_ANOTHER,
    STOPPED,
    UNKNOWN
  }

  public static Fare fare(Presence presence) {
    if (presence.isStopped()) {
      return Fare.STOPPED;
    }
    return presence
        .found()
        .map(running -> running.ours() ? Fare.RUNS : Fare.STARTED_BY_ANOTHER)
        .orElse(Fare.UNKNOWN);
  }
}

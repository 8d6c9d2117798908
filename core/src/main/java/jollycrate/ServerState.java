package jollycrate;

import java.util.List;

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
    long pid,
    List<Standing> applications,
    String trouble) {

  /** An application that stands there. */
  public record Standing(String name, String version, String address) {}

  /** Whether its process runs. */
  public boolean runs() {
    return pid > 0;
  }
}

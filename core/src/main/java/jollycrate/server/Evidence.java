package jollycrate.server;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Map;
import java.util.Set;
import jollycrate.host.Fact;
import jollycrate.host.Life;

/**
 * What was seen of a server since a switch.
 *
 * @param log everything logged since just before the switch
 * @param fresh where in it the part begins that cannot tell of anything earlier
 * @param since time since the switch
 * @param started whether the server was started after the switch
 * @param life whether its process runs
 * @param listening whether that process or one that descends from it has opened the HTTP port
 * @param elsewhere other ports that they have opened
 * @param settled how long nothing has changed about those
 * @param output what the application printed since it was started, where that is another log
 * @param made what the server made for the placement, as far as it stands there
 */
public record Evidence(
    String log,
    int fresh,
    Duration since,
    boolean started,
    Life life,
    Fact<Boolean> listening,
    Set<Integer> elsewhere,
    Duration settled,
    String output,
    Made made) {

  /**
   * What stands there.
   *
   * @param switchStands whether the switch file does
   * @param tracesStand whether any trace does
   * @param marks texts of the marks that were written since the switch was put
   */
  public record Made(boolean switchStands, boolean tracesStand, Map<Path, String> marks) {
    /** Nothing does. */
    public static final Made NOTHING = new Made(false, false, Map.of());
  }

  /** Whether the switch file stands there. */
  public boolean switchStands() {
    return made.switchStands();
  }

  /** Whether any trace stands there. */
  public boolean tracesStand() {
    return made.tracesStand();
  }

  /** Whether the server's process has provably ended. */
  public boolean ended() {
    return life == Life.GONE;
  }

  /** Whether the HTTP port is known to be open. */
  public boolean open() {
    return listening.orElse(false);
  }

  /** What is waited for, with why it cannot be seen if it cannot. */
  public Sign.Waiting waitingToListen(String what) {
    return new Sign.Waiting(
        what + listening.unread().map(why -> " (that cannot be told: " + why + ")").orElse(""));
  }
}

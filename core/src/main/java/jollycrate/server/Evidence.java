package jollycrate.server;

import java.time.Duration;
import java.util.Set;

/**
 * What was seen of a server since a switch.
 *
 * @param log everything logged since just before the switch
 * @param fresh where in it the part begins that cannot tell of anything earlier
 * @param since time since the switch
 * @param started whether the server was started after the switch
 * @param alive whether its process runs
 * @param listening whether that process or one that descends from it has opened the HTTP port
 * @param elsewhere other ports that they have opened
 * @param settled how long nothing has changed about those
 * @param output what the application printed since it was started, where that is another log
 * @param switchStands whether the switch file stands there
 * @param tracesStand whether any trace stands there
 */
public record Evidence(
    String log,
    int fresh,
    Duration since,
    boolean started,
    boolean alive,
    boolean listening,
    Set<Integer> elsewhere,
    Duration settled,
    String output,
    boolean switchStands,
    boolean tracesStand) {}

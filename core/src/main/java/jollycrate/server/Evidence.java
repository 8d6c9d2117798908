package jollycrate.server;

import java.time.Duration;

/**
 * What was seen of a server since a switch.
 *
 * @param log everything logged since just before the switch
 * @param fresh where in it the part begins that cannot tell of anything earlier
 * @param since time since the switch
 * @param started whether the server was started after the switch
 * @param alive whether its process runs
 * @param listening whether that process has opened its HTTP port
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
    boolean switchStands,
    boolean tracesStand) {}

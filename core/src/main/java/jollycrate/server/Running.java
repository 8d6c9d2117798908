package jollycrate.server;

import java.util.List;
import jollycrate.host.Identity;

/**
 * The process of a server.
 *
 * @param fingerprint of the launch it came from
 * @param command of that launch, without its token
 * @param ours whether we started it, or the unit that we put there
 */
public record Running(Identity identity, String fingerprint, List<String> command, boolean ours) {}

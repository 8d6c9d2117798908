package jollycrate.server;

import java.util.List;
import jollycrate.host.Identity;

/**
 * The process of a server.
 *
 * @param fingerprint of the launch it came from
 * @param command of that launch, without its token
 */
public record Running(Identity identity, String fingerprint, List<String> command) {}

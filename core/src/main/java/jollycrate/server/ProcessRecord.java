package jollycrate.server;

import java.util.List;
import java.util.Optional;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;

/**
 * What {@code .jolly/process.json} tells: written with the token before a start and again with the
 * identity after it.
 *
 * @param command as in {@link Running}
 * @param identity null while a start is under way
 * @param log where the server's log ended just before the start
 */
public record ProcessRecord(
    String token, String fingerprint, List<String> command, Identity identity, long log) {

  /** The process, if it runs. */
  public Optional<Running> running(HostProcesses processes) {
    Optional<Identity> found =
        identity == null ? processes.withToken(token) : Optional.of(identity);
    return found.filter(processes::alive).map(alive -> new Running(alive, fingerprint, command));
  }
}

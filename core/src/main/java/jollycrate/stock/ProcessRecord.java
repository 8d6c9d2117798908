package jollycrate.stock;

import java.util.List;
import java.util.Optional;
import jollycrate.host.Fact;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.server.Running;

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

  /** The process as a running one. */
  Running running(Identity found) {
    return new Running(found, fingerprint, command, Fact.known(Optional.empty()), true);
  }

  /** The argument by which the process with a token is found. */
  Optional<String> argument(String itsToken) {
    return command.stream()
        .filter(argument -> argument.contains(Launch.TOKEN))
        .map(argument -> argument.replace(Launch.TOKEN, itsToken))
        .findFirst();
  }
}

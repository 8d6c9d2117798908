package jollycrate.app;

import java.nio.file.Path;
import java.util.Optional;

/**
 * One server as {@code servers.toml} describes it.
 *
 * @param host machine on which it is, as it is described there; empty: this one
 * @param folder the instance's own folder
 * @param installation empty: the practice server
 * @param javax whether that is the one for javax.servlet
 * @param ports where it listens
 * @param jvm that it runs on
 * @param variables that it sees besides the usual ones
 * @param kind its kind, where servers.toml tells it: of those whose folder holds all of the server,
 *     and runs programs; empty: what its installation tells
 * @param keeping how much of what was is kept
 * @param front web server before a service
 * @param steering how one that people have is started
 * @param boot who starts it after the machine was started
 */
public record ServerEntry(
    String name,
    Optional<String> host,
    Path folder,
    Optional<Path> installation,
    boolean javax,
    Ports ports,
    Jvm jvm,
    ServerVariables variables,
    Optional<String> kind,
    Keeping keeping,
    Optional<Front> front,
    Steering steering,
    Optional<Boot> boot) {

  /** Whether what is delivered there runs by itself, not in a server that hosts applications. */
  public boolean runsPrograms() {
    return kind.isPresent();
  }

  /** Its folder as people read it: with its machine, when that is another one. */
  public String place() {
    return host.map(machine -> machine + ":").orElse("") + folder;
  }
}

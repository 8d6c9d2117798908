package jollycrate.host;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Processes of a host.
 *
 * <p>Every verb throws {@link HostException} when the host refuses.
 */
public interface HostProcesses {
  /** How a process is asked to end. */
  enum Signal {
    /** Asks a Java process to print what its threads do. */
    QUIT,
    /** Asks politely. */
    TERM,
    /** Ends it. */
    KILL
  }

  /**
   * Starts a process in a session of its own. Before the program begins, its process id stands in
   * {@code note}; the token is among its arguments, so that it is found even if this call never
   * returned.
   */
  Identity start(Launch launch, String token, Path note);

  /** The running process that carries a token. */
  Optional<Identity> withToken(String token);

  /** The process that asks. */
  Identity self();

  /** The kernel's id of this boot. */
  String boot();

  /** Whether that very process runs. */
  boolean alive(Identity process);

  /** Sends a signal to that very process; nothing when it has ended. */
  void signal(Identity process, Signal signal);

  /**
   * Runs a program to its end.
   *
   * @param environment everything it sees; nothing is inherited
   * @param limit it is ended when it takes longer
   */
  Ran run(
      List<String> command,
      Path workingFolder,
      Map<String, String> environment,
      String input,
      Duration limit);

  /** Who listens on a port of any address. */
  Optional<Listening> listening(int port);
}

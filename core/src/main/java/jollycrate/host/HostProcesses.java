package jollycrate.host;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Predicate;

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
   * Starts a process in a session of its own, as {@link #accountIn} tells. Before the program
   * begins, its process id stands in {@code note}; the token is among its arguments, so that it is
   * found even if this call never returned.
   */
  Identity start(Launch launch, String token, Path note);

  /**
   * As whom programs run that are started in a folder: its owner, when root asks. Empty when they
   * run as the one who asks.
   */
  Optional<Account> accountIn(Path folder);

  /** Every running process with a certain argument, the one that started first in front. */
  default Fact<List<Program>> programs(String argument) {
    return programs(arguments -> arguments.contains(argument));
  }

  /**
   * Every running process whose arguments are such, the one that started first in front.
   *
   * @param such told of the arguments, the program itself first
   */
  Fact<List<Program>> programs(Predicate<List<String>> such);

  /** Where a process works now, which relative paths among its arguments are seen from. */
  Fact<Path> workingFolder(Identity process);

  /**
   * Takes a lock that a process on the host holds as long as the one who asks goes on; empty when
   * somebody else holds it.
   *
   * @param content one line that tells whoever reads the file who holds it
   */
  Optional<Hold> hold(Path file, String content, Access access);

  /** The process that asks. */
  Identity self();

  /** The kernel's id of this boot. */
  String boot();

  /** Whether that very process runs. */
  Life life(Identity process);

  /** Whether that very process is not known to have ended. */
  default boolean mayRun(Identity process) {
    return life(process) != Life.GONE;
  }

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

  /** Everybody who listens on a TCP port, by port. */
  Fact<List<Listening>> listeners();

  /** Who listens on a port of any address. */
  default Fact<Optional<Listening>> listening(int port) {
    return listening(port, "");
  }

  /**
   * Who listens on a port where a certain address is bound: on that very address or on every one.
   *
   * @param address anything but an IP address of a network, as {@link Listening#isOfNetwork} tells,
   *     means any
   */
  Fact<Optional<Listening>> listening(int port, String address);

  /**
   * TCP ports that some processes listen on, or processes that descend from them, also when their
   * parent is gone.
   */
  Fact<Set<Integer>> ports(Collection<Identity> processes);

  /** Every process that can accept connections on a port. */
  Fact<Set<Identity>> acceptors(int port);

  /** File that a process prints to; empty when its standard output is no file. */
  Fact<Optional<Path>> output(Identity process);

  /**
   * What a Java process tells of itself. Not for deliveries: asking may open a port in it that
   * stays.
   */
  Fact<List<Bean>> beans(Identity process, List<Question> questions);

  /** Resident memory of a process and those that descend from it, in bytes. */
  long memory(Identity process);

  /** Number of connections that somebody has to a port of this host. */
  Fact<Long> connections(int port);
}

package jollycrate.server;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * What the files of a server that people have say of it.
 *
 * @param http port on which everybody's requests come in; empty when none is sure
 * @param address that it binds; empty: every address
 * @param way how it is started
 * @param told everything worth knowing, in reading order
 * @param doubts what somebody should know or mend
 */
public record SelfDescription(
    OptionalInt http, String address, Way way, List<Told> told, List<Doubt> doubts) {

  /**
   * How it is started.
   *
   * @param log file that it prints to then, from its folder on
   * @param start its own command that starts it; empty when it has none
   * @param memory maximum heap that its process was given; empty where nothing tells
   * @param options further options of Java that its process was given, and needs again
   */
  public record Way(String log, List<String> start, Optional<String> memory, List<String> options) {
    /** By a command of its own, or by the command line that its kind makes. */
    public Way(String log, List<String> start) {
      this(log, start, Optional.empty(), List.of());
    }
  }

  /**
   * One thing that is told.
   *
   * @param where file and line; may be empty
   */
  public record Told(String what, String value, String where) {}

  /**
   * Something to be known.
   *
   * @param fix what to do; empty when nothing needs to be done
   */
  public record Doubt(String subject, String message, String seen, String fix) {}
}

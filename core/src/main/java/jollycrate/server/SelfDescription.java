package jollycrate.server;

import java.util.List;
import java.util.OptionalInt;

/**
 * What the files of a server that people have say of it.
 *
 * @param http port on which everybody's requests come in; empty when none is sure
 * @param address that it binds; empty: every address
 * @param log file that it prints to when it is started, from its folder on
 * @param start its own command that starts it; empty when it has none
 * @param told everything worth knowing, in reading order
 * @param doubts what somebody should know or mend
 */
public record SelfDescription(
    OptionalInt http,
    String address,
    String log,
    List<String> start,
    List<Told> told,
    List<Doubt> doubts) {

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

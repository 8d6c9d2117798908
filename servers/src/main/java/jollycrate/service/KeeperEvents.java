package jollycrate.service;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What the keeper tells of one program, read from its log of events. */
final class KeeperEvents {
  private static final Pattern LINE =
      Pattern.compile("^\\S+ (\\w+) (\\S+)(?: (\\S+))?(?: (.*))?$", Pattern.MULTILINE);
  private static final Pattern BEGUN = Pattern.compile("pid (\\d+) log (\\S+):(\\d+):(\\d+)");

  /** How a program fares. */
  enum Fare {
    /** The keeper never spoke of it since it was started. */
    UNKNOWN,
    RUNS,
    ENDING,
    ENDED,
    /** It crashed and is started again after a pause. */
    PAUSED,
    REFUSED,
    GONE
  }

  /**
   * The last that is known of a program.
   *
   * @param digest of the file by which it was run
   * @param position of the line that tells of its last start
   * @param told what the last line says besides
   * @param unlogged why its output was lost since it was started; empty when it was not
   */
  record State(
      Fare fare, String digest, int position, String told, Optional<Begun> begun, String unlogged) {
    private static final State NONE = new State(Fare.UNKNOWN, "", -1, "", Optional.empty(), "");

    State now(Fare next, String digestNow, String toldNow) {
      return new State(next, digestNow, position, toldNow, begun, unlogged);
    }
  }

  /** Where the output of a start stands: in the log of that number, from that byte on. */
  record Begun(long pid, String log, int number, long offset) {}

  private KeeperEvents() {}

  /** The last state of a program. */
  static State of(String name, String log) {
    State state = State.NONE;
    Matcher line = LINE.matcher(log);
    while (line.find()) {
      if (line.group(1).equals("up")) {
        state = State.NONE;
      } else if (line.group(2).equals(name)) {
        state = next(state, line);
      }
    }
    return state;
  }

  private static State next(State state, Matcher line) {
    String digest = line.group(3) == null ? "" : line.group(3);
    String told = line.group(4) == null ? "" : line.group(4);
    return switch (line.group(1)) {
      case "begin" -> new State(Fare.RUNS, digest, line.start(), told, begun(told), "");
      case "ending" -> state.now(Fare.ENDING, digest, told);
      case "ended" -> state.now(Fare.ENDED, digest, told);
      case "again" -> state.now(Fare.PAUSED, digest, state.told() + " " + told);
      case "refused" -> new State(Fare.REFUSED, digest, line.start(), told, Optional.empty(), "");
      case "unlogged" ->
          new State(
              state.fare(), state.digest(), state.position(), state.told(), state.begun(), told);
      case "gone" -> state.digest().equals(digest) ? state.now(Fare.GONE, digest, told) : state;
      default -> state;
    };
  }

  private static Optional<Begun> begun(String told) {
    Matcher matcher = BEGUN.matcher(told);
    return matcher.matches()
        ? Optional.of(
            new Begun(
                Long.parseLong(matcher.group(1)),
                matcher.group(2),
                Integer.parseInt(matcher.group(3)),
                Long.parseLong(matcher.group(4))))
        : Optional.empty();
  }
}

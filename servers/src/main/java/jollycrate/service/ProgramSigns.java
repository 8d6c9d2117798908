package jollycrate.service;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import jollycrate.server.Cause;
import jollycrate.server.Evidence;
import jollycrate.server.Expected;
import jollycrate.server.Placement;
import jollycrate.server.Sign;

/** Reads from the keeper's events, and from ports and output, what became of a program. */
final class ProgramSigns {
  /**
   * Another port that is open for so long, without the one it was told, will not be the only one.
   */
  private static final Duration OPENED_ELSEWHERE = Duration.ofSeconds(10);

  private static final int SIGNALLED = 128;
  private static final int KILLED = SIGNALLED + 9;
  private static final int TERMINATED = SIGNALLED + 15;
  private static final int LAST_WORDS = 5;

  /** How programs mark a line that says what went wrong; usage pages come after it. */
  private static final Pattern ERROR =
      Pattern.compile(
          "\\b(ERROR|FATAL|SEVERE)\\b|\\b[Ee]rror:|^(\\w+\\.){1,60}\\w*(Exception|Error)\\b");

  private final Placement placement;
  private final Evidence evidence;
  private final String digest;
  private final Optional<String> ready;
  private final int port;
  private final KeeperEvents.State state;

  /**
   * @param digest of the file by which the program is to run
   * @param ready a text that its output holds once it is up; empty for none
   */
  ProgramSigns(Placement placement, Evidence evidence, String digest, Optional<String> ready) {
    this.placement = placement;
    this.evidence = evidence;
    this.digest = digest;
    this.ready = ready.filter(text -> !text.isEmpty());
    this.port = placement.route().direct().getPort();
    this.state = KeeperEvents.of(String.valueOf(port), evidence.log());
  }

  Sign sign(Expected expected) {
    if (expected == Expected.GONE) {
      return gone();
    }
    if (evidence.ended()) {
      return new Sign.Failed(keeperEnded());
    }
    return expected == Expected.SWITCHED && evidence.open() ? new Sign.Reached() : up();
  }

  private Sign up() {
    if (!state.digest().equals(digest) || state.fare() == KeeperEvents.Fare.UNKNOWN) {
      return new Sign.Waiting("the keeper to start " + placement.application());
    }
    return switch (state.fare()) {
      case RUNS -> running();
      case ENDED, PAUSED -> new Sign.Failed(ended());
      case REFUSED ->
          new Sign.Failed(
              Cause.of(
                  "the program cannot be started: " + state.told(),
                  "Fix 'java' of the server in servers.toml, or [program] in jolly.toml"));
      default -> new Sign.Waiting(placement.application() + " to be started again");
    };
  }

  private Sign running() {
    boolean unchanged = state.position() < evidence.fresh();
    if (unchanged && evidence.since().compareTo(placement.timing().notice()) < 0) {
      return new Sign.Waiting("the keeper to notice " + placement.application());
    }
    if (!evidence.open()) {
      return isElsewhere()
          ? new Sign.Failed(elsewhere())
          : evidence.waitingToListen(placement.application() + " to open port " + port);
    }
    return ready.isPresent() && !evidence.output().contains(ready.get())
        ? new Sign.Waiting(placement.application() + " to say '" + ready.get() + "'")
        : new Sign.Reached();
  }

  private boolean isElsewhere() {
    return !evidence.elsewhere().isEmpty() && evidence.settled().compareTo(OPENED_ELSEWHERE) > 0;
  }

  private Cause elsewhere() {
    List<String> ports = evidence.elsewhere().stream().map(String::valueOf).toList();
    return Cause.of(
        "the program opened port " + String.join(", ", ports) + ", and not " + port,
        "Say in [program] how it is told its port: what stands there did not reach it");
  }

  private Sign gone() {
    if (evidence.tracesStand()) {
      return new Sign.Waiting(placement.made().traces().get(0) + " to go");
    }
    boolean quiet =
        state.fare() == KeeperEvents.Fare.UNKNOWN
            && evidence.since().compareTo(placement.timing().notice()) > 0;
    boolean over = state.fare() == KeeperEvents.Fare.GONE || quiet || evidence.ended();
    return over
        ? new Sign.Reached()
        : new Sign.Waiting(placement.application() + " on port " + port + " to end");
  }

  private Cause keeperEnded() {
    return Cause.of(
        "the keeper of the service ended",
        "Read log/keeper.log in the service's folder, then deliver again");
  }

  /** Why a program does not run, when the keeper says so. */
  static Optional<Cause> down(String server, Placement placement, String log) {
    KeeperEvents.State state =
        KeeperEvents.of(String.valueOf(placement.route().direct().getPort()), log);
    String next =
        "Read 'jolly server log "
            + server
            + "'; 'jolly server start "
            + server
            + "' starts it"
            + " again";
    return switch (state.fare()) {
      case ENDED ->
          Optional.of(
              Cause.of(
                  placement.application() + " does not run: " + how(code(state), "ended"), next));
      case PAUSED ->
          Optional.of(
              Cause.of(
                  placement.application()
                      + " does not run: "
                      + how(code(state), "ended")
                      + "; it is started again"
                      + state.told().replaceFirst("^code \\d+", ""),
                  next));
      case REFUSED ->
          Optional.of(
              Cause.of(
                  placement.application() + " does not run: it cannot be started: " + state.told(),
                  next));
      default -> Optional.empty();
    };
  }

  private static int code(KeeperEvents.State state) {
    return Integer.parseInt(state.told().split(" ")[1]);
  }

  private static String how(int code, String ended) {
    return switch (code) {
      case KILLED ->
          "the program was killed (signal 9): from outside, or by the kernel for want of memory";
      case TERMINATED -> "the program was asked from outside to end (signal 15)";
      default ->
          code > SIGNALLED
              ? "the program was ended by signal " + (code - SIGNALLED)
              : "the program " + ended + ", with exit code " + code;
    };
  }

  private Cause ended() {
    int code = code(state);
    String how = how(code, "ended while starting");
    Optional<Cause> told = new ProgramFailure(placement.release().packages()).in(evidence.output());
    if (told.isPresent() && code != KILLED && code != TERMINATED) {
      Cause found = told.get();
      return new Cause(
          how + ": " + found.what(), found.where(), found.why(), found.next(), found.logPosition());
    }
    List<String> lines = evidence.output().lines().filter(line -> !line.isBlank()).toList();
    List<String> errors = lines.stream().filter(line -> ERROR.matcher(line).find()).toList();
    if (!errors.isEmpty()) {
      return new Cause(
          how,
          "",
          errors.stream().limit(LAST_WORDS).toList(),
          "These lines tell of errors; 'jolly server log' has all it printed",
          -1);
    }
    return new Cause(
        how,
        "",
        lines.subList(Math.max(0, lines.size() - LAST_WORDS), lines.size()),
        lines.isEmpty() ? "It printed nothing" : "These were its last words",
        -1);
  }
}

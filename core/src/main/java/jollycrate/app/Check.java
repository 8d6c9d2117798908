package jollycrate.app;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Requests with what is expected of their answers, one after the other.
 *
 * @param requests at least one; the first that fails is the last
 * @param afterwards requests that follow whatever became of those, so that nothing stays behind
 * @param cell of the table of who may see what; empty for any other check
 */
public record Check(
    String name,
    List<Request> requests,
    List<Request> afterwards,
    Manner manner,
    Optional<Cell> cell) {
  /**
   * One request and what is expected of its answer.
   *
   * @param remember where in the answer a value stands, by the name under which later requests know
   *     it
   * @param pages how many pages deep what is referred to is asked for, too: 0 is no page at all
   * @param browser whether the page is loaded by a browser, too
   */
  public record Request(
      Ask ask, Expect expect, Map<String, Place> remember, int pages, boolean browser) {
    /** One of which nothing is remembered or followed. */
    public Request(Ask ask, Expect expect) {
      this(ask, expect, Map.of(), 0, false);
    }
  }

  /**
   * Where a value stands in an answer.
   *
   * @param told JSON Pointer (RFC 6901), name of a header, or a regular expression whose first
   *     group it is
   */
  public record Place(In in, String told) {
    /** In what of an answer. */
    public enum In {
      JSON,
      HEADER,
      TEXT
    }
  }

  /**
   * How a check is made.
   *
   * @param fromHost whether it is asked on the server's own machine, and not from here
   * @param retryFor how long it is tried again while it fails; not at all when zero
   * @param load how its time is measured once it passes; empty: not at all
   * @param varies what is left out when two answers are compared: JSON Pointers and regular
   *     expressions
   */
  public record Manner(
      boolean fromHost, Duration retryFor, Optional<Load> load, List<String> varies) {
    /** Once, from here. */
    public static final Manner PLAIN =
        new Manner(false, Duration.ZERO, Optional.empty(), List.of());
  }

  /**
   * A request that is made again and again, so that its time can be told.
   *
   * @param requests how many are counted
   * @param atOnce how many go on at the same time
   * @param most longest times, by percentile: p50, p90, p95, p99 or longest
   */
  public record Load(int requests, int atOnce, Map<String, Duration> most) {
    /** Percentiles for which a longest time may be told. */
    public static final List<String> PERCENTILES = List.of("p50", "p90", "p95", "p99", "longest");
  }

  /**
   * Whether somebody may see something.
   *
   * @param user empty: nobody who is logged in
   */
  public record Cell(String path, Optional<String> user, boolean allowed) {
    /** How people who are not logged in are called. */
    public static final String ANYONE = "anyone";

    /** Who it is. */
    public String who() {
      return user.orElse(ANYONE);
    }
  }

  /** One request. */
  public Check(String name, Ask ask, Expect expect) {
    this(name, List.of(new Request(ask, expect)), List.of(), Manner.PLAIN, Optional.empty());
  }

  /** The request that comes first. */
  @JsonIgnore
  public Request first() {
    return requests.get(0);
  }

  /** The same, made once and not measured. */
  public Check unmeasured() {
    Manner once =
        new Manner(manner.fromHost(), manner.retryFor(), Optional.empty(), manner.varies());
    return new Check(name, requests, afterwards, once, cell);
  }

  /** Whether it is one request by nobody that looks at one answer, so that it can be made again. */
  @JsonIgnore
  public boolean isPlain() {
    return isSafe()
        && requests.size() == 1
        && first().pages() == 0
        && first().ask().user().isEmpty()
        && manner.load().isEmpty()
        && cell.isEmpty()
        && !manner.fromHost();
  }

  /** Whether nothing is meant to be changed by it. */
  @JsonIgnore
  public boolean isSafe() {
    return Stream.concat(requests.stream(), afterwards.stream())
        .allMatch(request -> request.ask().isSafe());
  }
}

package jollycrate.check;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Check;
import jollycrate.json.MayLack;
import jollycrate.server.Cause;

/**
 * How one check went.
 *
 * @param request method and URL
 * @param status HTTP status, 0 when no answer came
 * @param unanswered why no answer came; empty when one did
 * @param took from sending the request to the last byte
 * @param misses what was expected and what came; empty when it passed
 * @param cause why, as far as it is known
 * @param proves whether passing says something about the application, and not only about the server
 *     before it
 * @param cell of the table of who may see what; empty for any other check
 * @param times of the request made again and again; empty when that was not asked for
 * @param picture of the page in a browser, as JPEG in Base64; empty for none
 */
public record CheckResult(
    String name,
    String request,
    int status,
    @MayLack Optional<Answer.Why> unanswered,
    Duration took,
    List<Miss> misses,
    Optional<Cause> cause,
    boolean proves,
    @MayLack Optional<Check.Cell> cell,
    @MayLack Optional<Times> times,
    @MayLack String picture) {

  /** Of an answer, or of why none came. */
  static CheckResult of(
      String name,
      String request,
      Answer answer,
      List<Miss> misses,
      Optional<Cause> cause,
      boolean proves) {
    return plain(
        name, request, answer.status(), answer.unanswered(), answer.took(), misses, cause, proves);
  }

  /**
   * Of something that is asked by no HTTP request, or where none was sent.
   *
   * @param asked what was asked
   */
  public static CheckResult withoutAnswer(
      String name,
      String asked,
      Duration took,
      List<Miss> misses,
      Optional<Cause> cause,
      boolean proves) {
    return plain(name, asked, 0, Optional.empty(), took, misses, cause, proves);
  }

  private static CheckResult plain(
      String name,
      String asked,
      int status,
      Optional<Answer.Why> unanswered,
      Duration took,
      List<Miss> misses,
      Optional<Cause> cause,
      boolean proves) {
    return new CheckResult(
        name,
        asked,
        status,
        unanswered,
        took,
        misses,
        cause,
        proves,
        Optional.empty(),
        Optional.empty(),
        "");
  }

  /** Why no answer came, or that one did. */
  public Answer.Why why() {
    return unanswered.orElse(Answer.Why.CAME);
  }

  /** Whether everything came as expected. */
  @JsonProperty
  public boolean passed() {
    return misses.isEmpty();
  }

  /** The same with another cause. */
  public CheckResult because(Optional<Cause> other) {
    return with(request, misses, other, cell);
  }

  /** The same as a cell of the table of who may see what. */
  CheckResult in(Optional<Check.Cell> place) {
    return with(request, misses, cause, place);
  }

  /** The same under another name; it proves nothing. */
  public CheckResult named(String other, List<Miss> missed, Optional<Cause> why) {
    return new CheckResult(
        other, request, status, unanswered, took, missed, why, false, cell, times, picture);
  }

  /** The same, told to have asked for something else. */
  CheckResult asking(String other) {
    return with(other, misses, cause, cell);
  }

  /** The same, of which something was missed besides. */
  CheckResult missing(List<Miss> more, Cause why) {
    return with(request, more, Optional.of(why), cell);
  }

  /** The same, all of whose requests took so long. */
  CheckResult taking(Duration time) {
    return new CheckResult(
        name, request, status, unanswered, time, misses, cause, proves, cell, times, picture);
  }

  /**
   * The same, loaded by a browser.
   *
   * @param how what is told of that besides
   * @param shown whether it was
   */
  CheckResult inBrowser(String how, boolean shown, List<Miss> missed, Cause why, String seen) {
    return new CheckResult(
        name,
        request + how,
        status,
        unanswered,
        took,
        missed,
        missed.isEmpty() ? cause : Optional.of(why),
        proves && shown,
        cell,
        times,
        seen);
  }

  /** The same, of which the times were measured. */
  CheckResult measured(Times measured, List<Miss> late, Cause slow) {
    Optional<Cause> why = late.isEmpty() ? cause : Optional.of(slow);
    return new CheckResult(
        name,
        request,
        status,
        unanswered,
        took,
        late,
        why,
        proves,
        cell,
        Optional.of(measured),
        picture);
  }

  /** The same, after which something stays behind that was to be removed. */
  CheckResult leaving(List<Miss> left, URI base) {
    List<Miss> all = new ArrayList<>(misses);
    all.addAll(left);
    Cause why =
        new Cause(
            "what the check made was not removed",
            base.toString(),
            List.of(),
            "Remove it by hand, and compare [[check.afterwards]] with what the application takes",
            -1);
    return with(request, List.copyOf(all), cause.or(() -> Optional.of(why)), cell);
  }

  /** The same of an application that does not run, whatever answered. */
  public CheckResult failedBy(Cause down) {
    List<Miss> all = new ArrayList<>(misses);
    all.add(0, new Miss("application", "started", "not started"));
    return with(request, List.copyOf(all), Optional.of(down), cell);
  }

  private CheckResult with(
      String asked, List<Miss> missed, Optional<Cause> why, Optional<Check.Cell> place) {
    return new CheckResult(
        name, asked, status, unanswered, took, missed, why, proves, place, times, picture);
  }

  /** One difference. */
  public record Miss(String what, String expected, String got) {}
}

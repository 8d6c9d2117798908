package jollycrate.check;

import java.net.URI;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.Statuses;
import jollycrate.server.Cause;

/** Runs checks against an address and says what came instead of what was expected. */
public final class Checker {
  /** Longest wait for an answer when a check names no limit. */
  private static final Duration LIMIT = Duration.ofSeconds(30);

  private static final int SERVER_ERROR = 500;
  private static final int NOT_FOUND = 404;

  private final Requester requester;
  private final URI base;
  private final Map<String, String> passwords;

  /**
   * @param base address of the application, ending in a slash
   * @param passwords of the users who log in, by name
   */
  public Checker(Requester requester, URI base, Map<String, String> passwords) {
    this.requester = requester;
    this.base = base;
    this.passwords = passwords;
  }

  /** Runs one check. */
  public CheckResult run(Check check) {
    Requester.Request request = request(check);
    Duration limit = check.expect().within().map(within -> within.plus(LIMIT)).orElse(LIMIT);
    Answer answer = requester.send(request, limit);
    List<CheckResult.Miss> misses =
        answer.came()
            ? new Expectations(check.expect(), base).misses(request.url(), answer)
            : List.of(none(answer));
    CheckResult told =
        result(check.name(), check.ask().method(), request.url(), answer, misses, true)
            .in(check.cell());
    boolean open = check.cell().filter(cell -> !cell.allowed()).isPresent() && !told.passed();
    CheckResult result =
        open && Statuses.SUCCESS.holds(answer.status())
            ? told.because(Optional.of(seenByAll(request.url())))
            : told;
    return check.page() && result.passed()
        ? new PageParts(requester, base, request.login()).of(request.url(), answer, result)
        : result;
  }

  private Requester.Request request(Check check) {
    Ask ask = check.ask();
    return new Requester.Request(
        ask.method(),
        URI.create(base + ask.path().substring(1)),
        ask.headers(),
        ask.sent(),
        ask.user().map(user -> new Requester.Login(user, passwords.get(user))));
  }

  /**
   * A check that was not run, as another one before it waited in vain for the same address.
   *
   * @param before name of that one
   */
  public CheckResult notAsked(Check check, String before) {
    URI url = request(check).url();
    String why = "not asked: nothing came back for '" + before + "'";
    Answer none = Answer.failed(Duration.ZERO, Answer.Why.SILENCE, why, "");
    return result(check.name(), check.ask().method(), url, none, List.of(none(none)), true)
        .in(check.cell())
        .because(Optional.empty());
  }

  /** Asks a program at its root; any answer of its own will do, but an error. */
  public CheckResult anyAnswer() {
    Answer answer = requester.send(Requester.Request.get(base), LIMIT);
    return result("answers", "GET", base, answer, errors(answer), answer.came());
  }

  /**
   * Asks for the root of an application of which nothing else is known. Where the server itself may
   * have answered, the answer proves nothing: a missing page (404), its own gate before the
   * application (401, 403), or a page that it reads from a file although servlets are to run.
   *
   * @param servlets whether the application has servlets
   */
  public CheckResult root(boolean servlets) {
    Answer answer = requester.send(Requester.Request.get(base), LIMIT);
    Optional<String> unproven = unproven(answer, servlets);
    String name = "answers" + unproven.map(why -> " (" + why + ")").orElse("");
    return result(name, "GET", base, answer, errors(answer), unproven.isEmpty());
  }

  /**
   * Asks for the same at another address, where the application must not answer. Another one may:
   * its answer is another one.
   *
   * @param proven whether something shows that the application works where it is to answer
   */
  public CheckResult absentAt(URI other, boolean proven) {
    Answer here = requester.send(Requester.Request.get(base), LIMIT);
    Answer there = requester.send(Requester.Request.get(other), LIMIT);
    boolean same =
        there.came()
            && there.status() != NOT_FOUND
            && there.status() == here.status()
            && there.body().equals(here.body());
    List<CheckResult.Miss> misses =
        same
            ? List.of(new CheckResult.Miss("answer", "not this application's", "the same answer"))
            : List.of();
    Optional<Cause> cause =
        same
            ? Optional.of(
                cause(
                    other,
                    "the public port answers for it too",
                    "Give the admin listener a Service of its own"))
            : Optional.empty();
    return new CheckResult(
        "the public port does not answer for it",
        "GET " + other,
        there.status(),
        there.unanswered(),
        there.took(),
        misses,
        cause,
        proven,
        Optional.empty());
  }

  private static Optional<String> unproven(Answer answer, boolean servlets) {
    return switch (answer.status()) {
      case 401, 403 -> Optional.of("with " + answer.status() + ": nobody was let in");
      case NOT_FOUND -> Optional.of("with 404: no page at its root");
      default ->
          servlets && answer.fromFile()
              ? Optional.of("with a file: no servlet was asked")
              : Optional.empty();
    };
  }

  private static List<CheckResult.Miss> errors(Answer answer) {
    if (!answer.came()) {
      return List.of(none(answer));
    }
    return answer.status() >= SERVER_ERROR
        ? List.of(new CheckResult.Miss("status", "below 500", "" + answer.status()))
        : List.of();
  }

  private static CheckResult result(
      String name,
      String method,
      URI url,
      Answer answer,
      List<CheckResult.Miss> misses,
      boolean proves) {
    boolean onlySlow = misses.size() == 1 && misses.get(0).what().equals(Expectations.TIME);
    Optional<Cause> cause =
        misses.isEmpty()
            ? Optional.empty()
            : Optional.of(onlySlow ? tooSlow(url) : cause(url, answer));
    return new CheckResult(
        name,
        method + " " + url,
        answer.status(),
        answer.unanswered(),
        answer.took(),
        misses,
        cause,
        proves,
        Optional.empty());
  }

  private static Cause tooSlow(URI url) {
    return cause(
        url,
        "the answer was right, but it came too late",
        "Look at what takes so long, or raise 'within' of the check");
  }

  private static Cause seenByAll(URI url) {
    return cause(
        url,
        "somebody sees it who is to be kept out",
        "Compare what guards it (security-constraint in web.xml, annotations) and [roles]");
  }

  private static CheckResult.Miss none(Answer answer) {
    return new CheckResult.Miss("answer", "one", answer.failure());
  }

  private static Cause cause(URI url, Answer answer) {
    if (!answer.came()) {
      return new Cause(answer.failure(), url.toString(), List.of(), answer.next(), -1);
    }
    return switch (answer.status()) {
      case 401 ->
          cause(
              url, "the log-in was not accepted", "Compare [users] and the password it refers to");
      case 403 ->
          cause(url, "this user is known but not allowed in", "Compare [roles] with web.xml");
      case 404 ->
          cause(
              url,
              "nothing is mapped to this path",
              "Compare the path with the servlet mappings (web.xml, annotations)");
      case 405 -> cause(url, "this path does not take this method", "Fix the check's method");
      case 502, 503, 504 ->
          cause(
              url,
              "the application is not there for the server or proxy that answered",
              "Read its log");
      default ->
          answer.status() >= SERVER_ERROR
              ? cause(url, "the application failed with an error of its own", "Read its log")
              : cause(url, "the application answered, but otherwise than described", "");
    };
  }

  private static Cause cause(URI url, String what, String next) {
    return new Cause(what, url.toString(), List.of(), next, -1);
  }
}

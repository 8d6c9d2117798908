package jollycrate.check;

import java.net.URI;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.Statuses;
import jollycrate.server.Cause;

/** Runs checks against an address and says what came instead of what was expected. */
public final class Checker {
  /** Longest wait for an answer when a check names no limit. */
  static final Duration LIMIT = Duration.ofSeconds(30);

  private static final int SERVER_ERROR = 500;
  private static final int NOT_FOUND = 404;

  private final Requester requester;
  private final URI base;
  private final People people;
  private final LogIns logIns;

  /**
   * @param base address of the application, ending in a slash
   */
  public Checker(Requester requester, URI base, People people) {
    this.requester = requester;
    this.base = base;
    this.people = people;
    this.logIns = new LogIns(requester, base, people);
  }

  /** Makes one check. */
  public CheckResult run(Check check) {
    CheckResult told = new Sequence(requester, base, people, logIns, check).run();
    boolean open = check.cell().filter(cell -> !cell.allowed()).isPresent() && !told.passed();
    return open && Statuses.SUCCESS.holds(told.status())
        ? told.because(Optional.of(Verdict.seenByAll(URI.create(base + path(check)))))
        : told;
  }

  /** The same with a query that no cache has an answer for. */
  public CheckResult runFresh(Check check) {
    Check.Request asked = check.first();
    Ask ask = asked.ask();
    String query = (ask.path().contains("?") ? "&" : "?") + "jolly-fresh=" + UUID.randomUUID();
    Ask fresh = new Ask(ask.method(), ask.path() + query, ask.headers(), ask.sent(), ask.user());
    return run(new Check(check.name(), fresh, asked.expect()));
  }

  private static String path(Check check) {
    return check.first().ask().path().substring(1);
  }

  /**
   * A check that was not run, as another one before it waited in vain for the same address.
   *
   * @param before name of that one
   */
  public CheckResult notAsked(Check check, String before) {
    String why = "not asked: nothing came back for '" + before + "'";
    Answer none = Answer.failed(Duration.ZERO, Answer.Why.SILENCE, why, "");
    String address = check.first().ask().method() + " " + base + path(check);
    return CheckResult.of(
            check.name(), address, none, List.of(Verdict.none(none)), Optional.empty(), true)
        .in(check.cell());
  }

  /** Asks a program at its root; any answer of its own will do, but an error. */
  public CheckResult anyAnswer() {
    return anyAnswer("answers");
  }

  /** The same under another name. */
  public CheckResult anyAnswer(String name) {
    Answer answer = requester.send(Requester.Request.get(base), LIMIT);
    return Verdict.result(name, "GET", base, answer, errors(answer), answer.came());
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
    return Verdict.result(name, "GET", base, answer, errors(answer), unproven.isEmpty());
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
            && there.text().equals(here.text())
            && there.body().bytes() == here.body().bytes();
    List<CheckResult.Miss> misses =
        same
            ? List.of(new CheckResult.Miss("answer", "not this application's", "the same answer"))
            : List.of();
    Optional<Cause> cause =
        same
            ? Optional.of(
                Verdict.cause(
                    other,
                    "the public port answers for it too",
                    "Give the admin listener a Service of its own"))
            : Optional.empty();
    boolean nobody = !there.came() || there.status() == NOT_FOUND;
    String name =
        nobody || same
            ? "the public port does not answer for it"
            : "the public port answers with something else";
    return CheckResult.of(name, "GET " + other, there, misses, cause, proven);
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
      return List.of(Verdict.none(answer));
    }
    return answer.status() >= SERVER_ERROR
        ? List.of(new CheckResult.Miss("status", "below 500", "" + answer.status()))
        : List.of();
  }
}

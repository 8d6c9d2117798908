package jollycrate.check;

import com.fasterxml.jackson.databind.node.TextNode;
import java.net.URI;
import java.net.URISyntaxException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.Values;
import jollycrate.server.Cause;

/** The requests of one check, one after the other, and what they remember. */
final class Sequence {
  private static final int WORD_LENGTH = 8;

  private final Requester requester;
  private final URI base;
  private final People people;
  private final LogIns logIns;
  private final Check check;

  /**
   * Checks that only look share their session. The others have one of their own: a page may have a
   * link by which one logs out.
   */
  private final String cookies;

  private Values values;
  private Duration took = Duration.ZERO;

  Sequence(Requester requester, URI base, People people, LogIns logIns, Check check) {
    this.requester = requester;
    this.base = base;
    this.people = people;
    this.logIns = logIns;
    this.check = check;
    String unique = UUID.randomUUID().toString().substring(0, WORD_LENGTH);
    boolean page = check.first().pages() > 0;
    boolean alone = page || check.requests().size() > 1 || !check.isSafe();
    this.cookies = alone ? unique + "/" : "";
    this.values = Values.NONE.and(Values.UNIQUE, TextNode.valueOf(unique));
  }

  CheckResult run() {
    int all = check.requests().size();
    List<CheckResult> made = new ArrayList<>();
    for (Check.Request request : check.requests()) {
      CheckResult result = made(request, false);
      String count = " (request " + (made.size() + 1) + " of " + all + ")";
      made.add(all == 1 ? result : result.asking(result.request() + count));
      if (!result.passed()) {
        break;
      }
    }
    CheckResult last = made.get(made.size() - 1);
    List<CheckResult.Miss> left = leftBehind();
    CheckResult whole = left.isEmpty() ? last : last.leaving(left, base);
    return whole.taking(took).in(check.cell());
  }

  /** What follows whatever became of the check; of what was never made nothing is to be removed. */
  private List<CheckResult.Miss> leftBehind() {
    List<CheckResult.Miss> misses = new ArrayList<>();
    for (Check.Request request : check.afterwards()) {
      boolean known =
          Values.names(request.ask().path()).stream().allMatch(values.known()::containsKey);
      if (known) {
        CheckResult result = made(request, true);
        String what = "afterwards, " + result.request().replace(base.toString(), "/");
        result
            .misses()
            .forEach(
                miss ->
                    misses.add(
                        new CheckResult.Miss(
                            what, miss.what() + " " + miss.expected(), miss.got())));
      }
    }
    return misses;
  }

  private CheckResult made(Check.Request template, boolean untilDone) {
    Check.Request request = values.in(template);
    String method = request.ask().method();
    Optional<URI> url = address(template.ask().path(), request.ask().path());
    if (url.isEmpty()) {
      return nowhere(request);
    }
    String told = method + " " + url.get();
    Optional<String> user = request.ask().user();
    Requester.Session session = session(user, untilDone);
    Optional<LogIns.Entry> entry = user.map(name -> logIns.enter(name, session));
    Optional<String> refused = entry.flatMap(LogIns.Entry::refused);
    if (refused.isPresent()) {
      CheckResult.Miss closed =
          new CheckResult.Miss("log-in", user.get() + " is let in", refused.get());
      return unasked(told, closed, Verdict.notLetIn(url.get(), closed));
    }
    Optional<Requester.Credentials> shown =
        entry
            .flatMap(LogIns.Entry::token)
            .map(token -> new Requester.Credentials(user.get(), token, true));
    return result(request, url.get(), shown.map(session::showing).orElse(session));
  }

  private CheckResult result(Check.Request request, URI url, Requester.Session session) {
    Ask ask = request.ask();
    Duration limit =
        request.expect().within().map(within -> within.plus(Checker.LIMIT)).orElse(Checker.LIMIT);
    Requester.Request sent =
        new Requester.Request(ask.method(), url, ask.headers(), ask.sent(), session);
    Answer answer = requester.send(sent, limit);
    took = took.plus(answer.took());
    List<CheckResult.Miss> misses = new ArrayList<>();
    if (answer.came()) {
      misses.addAll(new Expectations(request.expect(), base).misses(url, answer));
      request.expect().certificateDays().ifPresent(days -> certificate(url, days, misses));
      if (misses.isEmpty()) {
        remember(request, answer, misses);
      }
    } else {
      misses.add(Verdict.none(answer));
    }
    CheckResult result = Verdict.result(check.name(), ask.method(), url, answer, misses, true);
    if (result.passed() && check.manner().load().isPresent()) {
      Expectations expected = new Expectations(request.expect(), base);
      return new Timing(check.manner().load().get(), requester, sent, expected).of(result);
    }
    if (request.pages() == 0 || !result.passed()) {
      return result;
    }
    CheckResult whole =
        new PageParts(requester, base, session, request.pages()).of(url, answer, result);
    return request.browser() && whole.passed()
        ? new PageInBrowser(requester, base, session).of(url, whole)
        : whole;
  }

  private Requester.Session session(Optional<String> user, boolean untilDone) {
    return new Requester.Session(
        cookies + user.orElse(""), user.flatMap(people::credentials), untilDone);
  }

  /**
   * Where a path leads. One that begins with what an answer told is what the answer told: an
   * address, of which only the server's own are asked.
   */
  private Optional<URI> address(String template, String path) {
    try {
      URI url =
          template.startsWith("{")
              ? base.resolve(new URI(path))
              : new URI(base + path.substring(1));
      boolean here =
          base.getScheme().equals(url.getScheme())
              && base.getAuthority().equals(url.getAuthority());
      return Optional.of(url).filter(found -> here);
    } catch (URISyntaxException noAddress) {
      return Optional.empty();
    }
  }

  private CheckResult nowhere(Check.Request request) {
    String path = request.ask().path();
    return unasked(
        request.ask().method() + " " + base,
        new CheckResult.Miss("address", "one on the application's own server", path),
        Verdict.cause(
            base,
            "what an earlier answer told is not on the application's own server: " + path,
            "Remember an address of its own, or a part of one"));
  }

  private CheckResult unasked(String told, CheckResult.Miss miss, Cause why) {
    return CheckResult.withoutAnswer(
        check.name(), told, Duration.ZERO, List.of(miss), Optional.of(why), true);
  }

  private void certificate(URI url, int days, List<CheckResult.Miss> misses) {
    new ShownCertificate(requester, url)
        .missing(days)
        .ifPresent(
            got ->
                misses.add(
                    new CheckResult.Miss("certificate", "valid for " + days + " more days", got)));
  }

  private void remember(Check.Request request, Answer answer, List<CheckResult.Miss> misses) {
    request
        .remember()
        .forEach(
            (name, place) ->
                ToldValue.of(place, answer)
                    .ifPresentOrElse(
                        value -> values = values.and(name, value),
                        () ->
                            misses.add(
                                new CheckResult.Miss(
                                    "{" + name + "}",
                                    "a value at " + place.told(),
                                    "nothing there"))));
  }
}

package jollycrate.check;

import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.browser.Browser;
import jollycrate.browser.BrowserException;
import jollycrate.browser.Seen;
import jollycrate.browser.Visit;
import jollycrate.server.Cause;

/**
 * A page as a browser loads it, with what its scripts ask for and complain of.
 *
 * @param session as whom it is asked for
 */
record PageInBrowser(Requester requester, URI base, Requester.Session session) {
  private static final Duration QUIET_WITHIN = Duration.ofSeconds(20);
  private static final int MOST_TOLD = 8;
  private static final int ERROR = 400;

  /** The result of a page that was whole without it. */
  CheckResult of(URI url, CheckResult passed) {
    Optional<Browser> browser = Browser.installed();
    if (browser.isEmpty()) {
      String how = " (not in a browser: no Chromium is installed here)";
      return passed.inBrowser(how, false, List.of(), Cause.of("", ""), "");
    }
    try {
      return seen(url, browser.get().visit(visit(url)), passed);
    } catch (BrowserException e) {
      String how = " (not in the browser: " + e.getMessage() + ")";
      return passed.inBrowser(how, false, List.of(), Cause.of("", ""), "");
    }
  }

  private Visit visit(URI url) {
    Map<String, String> headers =
        session
            .credentials()
            .map(known -> Map.of("Authorization", known.header(StandardCharsets.UTF_8)))
            .orElse(Map.of());
    return new Visit(url, headers, requester.cookies(session.cookies()), QUIET_WITHIN);
  }

  private CheckResult seen(URI url, Seen seen, CheckResult passed) {
    String here = base.getScheme() + "://" + base.getAuthority() + "/";
    List<CheckResult.Miss> misses = new ArrayList<>();
    long elsewhere = 0;
    List<Seen.Call> unanswered = new ArrayList<>();
    for (Seen.Call call : seen.calls()) {
      boolean failed = call.status() == 0 || call.status() >= ERROR;
      if (!call.url().startsWith(here)) {
        elsewhere++;
      } else if (failed) {
        String got = call.status() == 0 ? call.failure() : "" + call.status();
        String what = call.method() + " /" + call.url().substring(here.length());
        unanswered.add(call);
        misses.add(new CheckResult.Miss(what, "an answer, as the page asks for it", got));
      }
    }
    seen.errors().forEach(error -> misses.add(new CheckResult.Miss("console", "no error", error)));
    String how =
        ", in a browser: "
            + (seen.calls().size() - elsewhere)
            + " calls"
            + (elsewhere == 0 ? "" : "; " + elsewhere + " to other servers were not made");
    List<CheckResult.Miss> told = misses.stream().limit(MOST_TOLD).toList();
    return passed.inBrowser(how, true, told, why(url, unanswered), seen.picture());
  }

  private Cause why(URI url, List<Seen.Call> unanswered) {
    boolean forTheRoot =
        !unanswered.isEmpty()
            && unanswered.stream().noneMatch(call -> call.url().startsWith(base.toString()));
    int count = unanswered.size();
    return forTheRoot
        ? Verdict.builtForTheRoot(
            url,
            base,
            count
                + (count == 1 ? " call" : " calls")
                + " of its scripts got no answer: asked for at /")
        : Verdict.cause(
            url,
            "the page answers, but it does not work in a browser",
            "Look at what its scripts ask for, and at the first error in its console");
  }
}

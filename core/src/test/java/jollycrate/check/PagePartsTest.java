package jollycrate.check;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.Expect;
import jollycrate.app.Statuses;
import org.junit.jupiter.api.Test;

/** A page is there when all that it refers to on its own server is. */
class PagePartsTest {
  private static final URI BASE = URI.create("http://bench:8080/spokes/");

  private final Map<String, Answer> answers = new HashMap<>();
  private final List<String> asked = Collections.synchronizedList(new ArrayList<>());

  private void answers(String path, int status, String type, String body) {
    answers.put(path, came(status, type, body));
  }

  private static Answer came(int status, String type, String body) {
    return Answer.came(
        status, Map.of("Content-Type", type), Answer.Body.of(body), Duration.ofMillis(1));
  }

  private CheckResult page(String html) {
    return page(1, html);
  }

  private CheckResult page(int depth, String html) {
    answers("/spokes/desk/", 200, "text/html", html);
    Check check =
        new Check(
            "the desk",
            List.of(
                new Check.Request(
                    Ask.get("/desk/", Optional.empty()),
                    Expect.of(Statuses.SUCCESS),
                    Map.of(),
                    depth,
                    false)),
            List.of(),
            Check.Manner.PLAIN,
            Optional.empty());
    return new Checker(new Stub(), BASE, People.NOBODY).run(check);
  }

  private final class Stub implements Requester {
    @Override
    public Answer send(Request request, Duration limit) {
      asked.add(request.url().toString().replace("http://bench:8080", ""));
      return answers.getOrDefault(request.url().getPath(), came(404, "text/html", ""));
    }

    @Override
    public X509Certificate certificate(URI url, Duration limit) {
      throw new UnsupportedOperationException();
    }

    @Override
    public void close() {}
  }

  @Test
  void whatItRefersToIsAskedForOnceAndOnItsOwnServerAlone() {
    answers("/spokes/style.css", 200, "text/css", "@import 'more.css'; a{b:url( \"f.woff2\" )}");
    for (String there : List.of("more.css", "f.woff2", "app.js", "a.png", "b.png", "desk/c.svg")) {
      answers("/spokes/" + there, 200, "x/y", "");
    }
    answers("/spokes/ledger", 401, "text/html", "");
    CheckResult result =
        page(
            """
            <base href="/spokes/"><link rel="StyleSheet" href="style.css"><link rel=author href=x>
            <script src="app.js"></script><script src="http://elsewhere/x.js"></script>
            <img src="a.png" srcset="a.png 1x, b.png 2x"><img src="data:image/png;base64,AA==">
            <style>p { background: url(desk/c.svg) }</style>
            <a href="ledger#top">ledger</a> <a href="/other/">other</a> <a href="mailto:x@y">y</a>
            """);
    assertThat(result.misses()).isEmpty();
    assertThat(result.request()).endsWith("/desk/ and its 8 parts");
    assertThat(asked)
        .containsExactlyInAnyOrder(
            "/spokes/desk/",
            "/spokes/style.css",
            "/spokes/more.css",
            "/spokes/f.woff2",
            "/spokes/app.js",
            "/spokes/a.png",
            "/spokes/b.png",
            "/spokes/desk/c.svg",
            "/spokes/ledger");
  }

  @Test
  void whatIsMissingIsNamedWithWhoRefersToIt() {
    answers("/spokes/style.css", 200, "text/css", "a { b: url(gone.png) }");
    CheckResult result = page("<link rel=stylesheet href=../style.css><a href=away>x</a>");
    assertThat(result.misses())
        .extracting(CheckResult.Miss::what, CheckResult.Miss::expected, CheckResult.Miss::got)
        .containsExactlyInAnyOrder(
            tuple("/spokes/gone.png", "an answer, as /spokes/style.css refers to it", "404"),
            tuple("/spokes/desk/away", "an answer, as /spokes/desk/ refers to it", "404"));
    assertThat(result.cause().orElseThrow().what())
        .isEqualTo("2 of 3 parts of the page are missing");
  }

  /** What a single-page application answers for all that it does not know. */
  @Test
  void aPageInPlaceOfAScriptIsNotTheScript() {
    answers("/spokes/app.js", 200, "text/html;charset=utf-8", "<p>");
    answers("/spokes/frame", 200, "text/html", "<p>");
    answers("/spokes/page", 200, "text/html", "<p>");
    CheckResult result =
        page("<script src=../app.js></script><iframe src=../frame></iframe><a href=../page>p</a>");
    assertThat(result.misses())
        .extracting(CheckResult.Miss::what, CheckResult.Miss::got)
        .containsExactly(tuple("/spokes/app.js", "200, but a page (text/html)"));
  }

  @Test
  void aLinkToWhatNeverEndsIsAnswered() {
    answers.put(
        "/spokes/stream", Answer.failed(Duration.ofSeconds(5), Answer.Why.ENDLESS, "endless", ""));
    assertThat(page("<a href=../stream>s</a>").misses()).isEmpty();
    assertThat(page("<script src=../stream></script>").misses()).hasSize(1);
  }

  @Test
  void whereNothingComesBackNothingMoreIsWaitedFor() {
    Answer late = Answer.failed(Duration.ofSeconds(30), Answer.Why.LATE, "no answer", "");
    StringBuilder scripts = new StringBuilder();
    for (int i = 0; i < 20; i++) {
      answers.put("/spokes/" + i + ".js", late);
      scripts.append("<script src=../").append(i).append(".js></script>");
    }
    CheckResult result = page(scripts.toString());
    assertThat(result.misses()).isNotEmpty().allMatch(miss -> miss.got().equals("no answer"));
    assertThat(asked).hasSizeLessThan(10);
  }

  @Test
  void linksAreFollowedAsDeepAsAsked() {
    answers("/spokes/desk/next", 200, "text/html", "<img src=gone.png><a href=far>far</a>");
    answers("/spokes/desk/far", 200, "text/html", "<img src=farther.png>");
    assertThat(page(1, "<a href=next>next</a>").misses()).isEmpty();
    assertThat(page(2, "<a href=next>next</a>").misses())
        .containsExactly(
            new CheckResult.Miss(
                "/spokes/desk/gone.png", "an answer, as /spokes/desk/next refers to it", "404"));
  }

  @Test
  void aFrontEndThatWasBuiltForTheRootIsToldAsThat() {
    answers("/spokes/a.png", 200, "image/png", "");
    CheckResult result =
        page("<script src=/app.js></script><link rel=stylesheet href=/s.css><img src=../a.png>");
    assertThat(result.cause().orElseThrow().what())
        .isEqualTo(
            "2 of 3 parts of the page are missing: they are asked for at /, and the application"
                + " stands at /spokes");
    assertThat(result.cause().orElseThrow().next()).contains("/spokes/", "path = \"/\"");
  }
}

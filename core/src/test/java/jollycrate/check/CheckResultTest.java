package jollycrate.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import jollycrate.json.Json;
import jollycrate.server.Cause;
import org.junit.jupiter.api.Test;

/** What is kept of a check is read again, also what was kept before it told why nothing came. */
class CheckResultTest {
  private static CheckResult result(Optional<Answer.Why> unanswered) {
    return new CheckResult(
        "answers",
        "GET http://a/",
        unanswered.isEmpty() ? 200 : 0,
        unanswered,
        Duration.ofMillis(3),
        List.of(),
        Optional.of(Cause.of("what", "next")),
        true,
        Optional.empty(),
        Optional.empty(),
        "");
  }

  private static Optional<CheckResult> kept(String text) {
    return Json.read(text.getBytes(StandardCharsets.UTF_8), CheckResult.class);
  }

  @Test
  void whatIsKeptIsReadAgain() {
    for (CheckResult told :
        List.of(result(Optional.empty()), result(Optional.of(Answer.Why.SILENCE)))) {
      assertThat(kept(Json.tree(told).toString())).contains(told);
    }
    String before = Json.tree(result(Optional.empty())).toString();
    assertThat(before).contains("\"unanswered\":null,");
    assertThat(kept(before.replace("\"unanswered\":null,", ""))).contains(result(Optional.empty()));
  }
}

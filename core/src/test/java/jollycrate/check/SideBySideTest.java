package jollycrate.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.Expect;
import jollycrate.app.Statuses;
import org.junit.jupiter.api.Test;

/** The answers to one check are compared with each other, whatever others asked for. */
class SideBySideTest {
  private static final List<Check> CHECKS =
      List.of(check("tickets", "/tickets"), check("the same again", "/tickets"));

  private static Check check(String name, String path) {
    return new Check(name, Ask.get(path, Optional.empty()), Expect.of(Statuses.SUCCESS));
  }

  /** Answers in turn. */
  private record Stub(List<String> texts) implements Requester {
    @Override
    public Answer send(Request request, Duration limit) {
      return Answer.came(200, Map.of(), Answer.Body.of(texts.remove(0)), Duration.ZERO);
    }

    @Override
    public X509Certificate certificate(URI url, Duration limit) {
      throw new UnsupportedOperationException();
    }

    @Override
    public void close() {}
  }

  private static SideBySide.Side side(String server, String... texts) {
    KeptAnswers answers = new KeptAnswers();
    URI base = URI.create("http://" + server + "/spokes/");
    Requester requester = answers.of(new Stub(new ArrayList<>(List.of(texts))));
    Checker checker = new Checker(requester, base, People.NOBODY);
    List<CheckResult> results = new ArrayList<>();
    for (Check check : CHECKS) {
      results.add(checker.run(check));
      answers.endOf(check.name());
    }
    return new SideBySide.Side(new SideBySide.Place(server, "spokes"), base, results, answers);
  }

  @Test
  void whatAnotherCheckMadeOfItIsNoDifference() {
    SideBySide both =
        SideBySide.of(CHECKS, side("bench", "three", "a1"), side("shop", "three", "b2"));
    assertThat(both.pairs()).extracting(SideBySide.Pair::same).containsExactly(true, false);
    assertThat(both.pairs().get(1).differences()).containsExactly("-a1", "+b2");
    assertThat(both.right()).isFalse();
  }
}

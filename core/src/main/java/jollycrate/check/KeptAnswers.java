package jollycrate.check;

import java.io.IOException;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import jollycrate.browser.Visit;

/** What came last from each address for each check, of a requester that does the asking. */
public final class KeptAnswers {
  private final Map<URI, Answer> answers = new ConcurrentHashMap<>();
  private final Map<String, Map<URI, Answer>> ofChecks = new HashMap<>();

  /** The same requester, whose answers are kept here. */
  public Requester of(Requester requester) {
    return new Keeping(requester);
  }

  /** All that came since the last check belongs to one that has ended. */
  public void endOf(String check) {
    ofChecks.put(check, Map.copyOf(answers));
    answers.clear();
  }

  /** What came from an address for a check; empty when it was not asked, or nothing came. */
  Optional<Answer> from(String check, URI url) {
    return Optional.ofNullable(ofChecks.getOrDefault(check, Map.of()).get(url))
        .filter(Answer::came);
  }

  private final class Keeping implements Requester {
    private final Requester requester;

    Keeping(Requester requester) {
      this.requester = requester;
    }

    @Override
    public Answer send(Request request, Duration limit) {
      Answer answer = requester.send(request, limit);
      answers.put(request.url(), answer);
      return answer;
    }

    @Override
    public void leads(String name, String address) {
      requester.leads(name, address);
    }

    @Override
    public List<Visit.Cookie> cookies(String session) {
      return requester.cookies(session);
    }

    @Override
    public X509Certificate certificate(URI url, Duration limit) throws IOException {
      return requester.certificate(url, limit);
    }

    @Override
    public void close() {
      requester.close();
    }
  }
}

package jollycrate.check;

import java.io.IOException;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/** What came last from each address, of a requester that does the asking. */
public final class KeptAnswers {
  private final Map<URI, Answer> answers = new ConcurrentHashMap<>();

  /** The same requester, whose answers are kept here. */
  public Requester of(Requester requester) {
    return new Keeping(requester);
  }

  /** What came from an address; empty when it was not asked, or nothing came. */
  Optional<Answer> from(URI url) {
    return Optional.ofNullable(answers.get(url)).filter(Answer::came);
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
    public X509Certificate certificate(URI url, Duration limit) throws IOException {
      return requester.certificate(url, limit);
    }

    @Override
    public void close() {
      requester.close();
    }
  }
}

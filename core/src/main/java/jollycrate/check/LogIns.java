package jollycrate.check;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.net.URI;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import jollycrate.app.Ask;
import jollycrate.app.LogIn;
import jollycrate.app.Statuses;
import jollycrate.app.Values;

/** Lets people in who have to do something for it first, once for each session. */
final class LogIns {
  private static final Duration LIMIT = Duration.ofSeconds(30);

  private final Requester requester;
  private final URI base;
  private final People people;
  private final FormLogIns forms;
  private final Map<String, Entry> done = new ConcurrentHashMap<>();

  LogIns(Requester requester, URI base, People people) {
    this.requester = requester;
    this.base = base;
    this.people = people;
    this.forms = new FormLogIns(requester, base, people);
  }

  /**
   * How somebody came in, or not.
   *
   * @param refused what came instead; empty when he was let in
   * @param token sent with each request from then on; empty when a cookie is enough
   */
  record Entry(Optional<String> refused, Optional<String> token) {
    private static final Entry OPEN = new Entry(Optional.empty(), Optional.empty());

    private static Entry refused(String got) {
      return new Entry(Optional.of(got), Optional.empty());
    }
  }

  /** Lets somebody in; who was refused may try again. */
  Entry enter(String user, Requester.Session session) {
    return people
        .act(user)
        .map(
            way ->
                done.compute(
                    session.cookies(),
                    (cookies, before) ->
                        before != null && before.refused().isEmpty()
                            ? before
                            : entered(user, way, session)))
        .orElse(Entry.OPEN);
  }

  private Entry entered(String user, LogIn way, Requester.Session session) {
    return way.post()
        .map(post -> entered(user, post, session))
        .orElseGet(
            () ->
                new Entry(
                    forms.refused(user, way.form().orElseThrow(), session), Optional.empty()));
  }

  private Entry entered(String user, LogIn.Post post, Requester.Session session) {
    URI url = URI.create(base + post.path().substring(1));
    JsonNode body =
        Values.NONE
            .and("user", TextNode.valueOf(user))
            .and("password", TextNode.valueOf(people.secrets().get(user)))
            .in(post.body());
    Ask.Sent sent = new Ask.Sent(Optional.of(body), Map.of(), List.of());
    Answer answer =
        requester.send(
            new Requester.Request("POST", url, Map.of(), Optional.of(sent), session), LIMIT);
    if (!answer.came() || !Statuses.SUCCESS.holds(answer.status())) {
      return Entry.refused(
          url.getRawPath() + ": " + (answer.came() ? "" + answer.status() : answer.failure()));
    }
    if (post.token().isEmpty()) {
      return Entry.OPEN;
    }
    Optional<String> token = ToldValue.of(post.token().get(), answer).map(JsonNode::asText);
    token.ifPresent(people.hides());
    return token.isPresent()
        ? new Entry(Optional.empty(), token)
        : Entry.refused(
            url.getRawPath()
                + " ("
                + answer.status()
                + ") tells no token at "
                + post.token().get().told());
  }
}

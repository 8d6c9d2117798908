package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.nio.file.Path;
import java.util.Optional;
import jollycrate.secret.Reference;

/**
 * How somebody logs in for checks, if not by BASIC authentication.
 *
 * @param form path of a page that shows a form for it to whoever is not logged in; empty: by a
 *     request or a token
 * @param post request that lets somebody in; empty: by a form, or by a token that is sent with each
 *     request (RFC 6750)
 * @param secret password or token; empty: the password of the user of that name
 */
public record LogIn(Optional<String> form, Optional<Post> post, Optional<Reference> secret) {
  /**
   * A request that lets somebody in.
   *
   * @param body JSON in which {@code {user}} and {@code {password}} stand for whoever logs in
   * @param token where its answer tells the token that is sent from then on; empty: a cookie is
   */
  public record Post(String path, JsonNode body, Optional<Check.Place> token) {}

  /** Whether somebody has to be let in before the first request. */
  public boolean isAct() {
    return form.isPresent() || post.isPresent();
  }

  /** The same whose secret is looked for from another folder on. */
  LogIn from(Path folder) {
    return new LogIn(form, post, secret.map(reference -> reference.from(folder)));
  }
}

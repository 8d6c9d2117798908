package jollycrate.app;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.secret.Reference;

/**
 * How somebody logs in for checks, if not by BASIC authentication.
 *
 * @param form path of a page that shows a form for it to whoever is not logged in; empty: by a
 *     token that is sent with each request (RFC 6750)
 * @param secret password or token; empty: the password of the user of that name
 */
public record LogIn(Optional<String> form, Optional<Reference> secret) {
  /** The same whose secret is looked for from another folder on. */
  LogIn from(Path folder) {
    return new LogIn(form, secret.map(reference -> reference.from(folder)));
  }
}

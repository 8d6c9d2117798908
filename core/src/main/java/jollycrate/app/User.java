package jollycrate.app;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.secret.Reference;

/**
 * Somebody who logs in to the application.
 *
 * @param there whether the server knows the user already; then it is not created
 * @param password empty for a user who is there and logs in for no check
 */
public record User(String name, boolean there, Optional<Reference> password) {
  /** The same whose password is looked for from another folder on. */
  User from(Path folder) {
    return new User(name, there, password.map(reference -> reference.from(folder)));
  }
}

package jollycrate.secret;

import java.nio.file.Path;
import java.util.Objects;
import java.util.Optional;

/**
 * Where a secret stands: {@code env:NAME}, a variable of the environment, or {@code file:PATH}, the
 * first line of a file.
 *
 * @param folder what a relative path starts from
 */
public record Reference(String text, Path folder) {
  private static final String ENV = "env:";
  private static final String FILE = "file:";

  /** Spelled out: a method that Java derives for a record is made at run time, at each start. */
  @Override
  public boolean equals(Object other) {
    return other instanceof Reference reference
        && text.equals(reference.text)
        && Objects.equals(folder, reference.folder);
  }

  @Override
  public int hashCode() {
    return text.hashCode() * 31 + Objects.hashCode(folder);
  }

  /** A reference, or empty when the text is none. */
  public static Optional<Reference> of(String text, Path folder) {
    boolean reference =
        text.startsWith(ENV) && text.length() > ENV.length()
            || text.startsWith(FILE) && text.length() > FILE.length();
    return reference ? Optional.of(new Reference(text, folder)) : Optional.empty();
  }

  /** The variable it names; empty when it names a file. */
  public Optional<String> variable() {
    return text.startsWith(ENV) ? Optional.of(text.substring(ENV.length())) : Optional.empty();
  }

  /** The same, looked for from another folder on. */
  public Reference from(Path other) {
    return new Reference(text, other);
  }

  Path file() {
    return folder.resolve(text.substring(FILE.length()));
  }
}

package jollycrate.host;

import java.util.Optional;
import java.util.function.Function;

/**
 * Something that was to be read from a host: known, or not to be had. What could not be read is not
 * false, so whoever asks has to say what he does then.
 */
public sealed interface Fact<T> {
  /** What was read. */
  record Known<T>(T value) implements Fact<T> {}

  /**
   * It could not be read.
   *
   * @param why in words that follow "cannot be told: "
   */
  record Unknown<T>(String why) implements Fact<T> {}

  /** What was read. */
  static <T> Fact<T> known(T value) {
    return new Known<>(value);
  }

  /** It could not be read. */
  static <T> Fact<T> unknown(String why) {
    return new Unknown<>(why);
  }

  /** What was read, or what stands for a fact that could not be. */
  default T orElse(T unread) {
    return this instanceof Known<T> known ? known.value() : unread;
  }

  /** Why it could not be read; empty when it was. */
  default Optional<String> unread() {
    return this instanceof Unknown<T> unknown ? Optional.of(unknown.why()) : Optional.empty();
  }

  /** The same of a value made from it. */
  default <R> Fact<R> map(Function<? super T, ? extends R> function) {
    return this instanceof Known<T> known
        ? known(function.apply(known.value()))
        : unknown(((Unknown<T>) this).why());
  }
}

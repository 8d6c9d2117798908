package jollycrate.host;

import java.util.function.Supplier;

/**
 * A lock on a file, held by a process of the host that ends with whoever asked for it. Nobody else
 * can take it from him; the kernel gives it free when the last process that holds it is gone.
 */
public interface Hold extends AutoCloseable {
  /** Whether it is held still: its process lives, and its file is the one that stands there. */
  boolean stands();

  /**
   * Nothing while it is held.
   *
   * @param otherwise is thrown when it is not, at the latest where {@link Sight#together} ends
   */
  default void mustStand(Supplier<? extends RuntimeException> otherwise) {
    if (!stands()) {
      throw otherwise.get();
    }
  }

  /**
   * Takes it again after the connection was cut that kept it.
   *
   * @param content what is written into the file now
   * @return whether it is held, and nobody else held it meanwhile
   */
  boolean renew(String content);

  /** Deletes the file and lets go; the file stays when it is another one by now. */
  @Override
  void close();
}

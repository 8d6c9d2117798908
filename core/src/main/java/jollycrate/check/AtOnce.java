package jollycrate.check;

import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ThreadFactory;
import java.util.function.Supplier;

/** Does several things at the same time, on threads that hold up no exit. */
public final class AtOnce implements AutoCloseable {
  private final ExecutorService threads;

  /**
   * @param most how many go on at the same time
   * @param name of the threads
   */
  public AtOnce(int most, String name) {
    this.threads = Executors.newFixedThreadPool(most, daemons(name));
  }

  /** Threads that end with the program. */
  static ThreadFactory daemons(String name) {
    return work -> {
      Thread thread = new Thread(work, name);
      thread.setDaemon(true);
      return thread;
    };
  }

  /** Begins something; whoever asks for what comes of it waits. */
  public <T> Supplier<T> begin(Supplier<T> work) {
    Future<T> future = threads.submit(work::get);
    return () -> {
      try {
        return future.get();
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw new IllegalStateException(e);
      } catch (ExecutionException e) {
        throw e.getCause() instanceof RuntimeException known
            ? known
            : new IllegalStateException(e.getCause());
      }
    };
  }

  @Override
  public void close() {
    threads.shutdownNow();
  }
}

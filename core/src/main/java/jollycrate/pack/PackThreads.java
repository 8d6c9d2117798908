package jollycrate.pack;

import java.io.Closeable;
import java.io.IOException;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;

/** The threads that read and compress ahead, one for each processor. */
final class PackThreads implements Closeable {
  private final int count = Runtime.getRuntime().availableProcessors();
  private final ExecutorService workers = Executors.newFixedThreadPool(count, PackThreads::thread);

  private static Thread thread(Runnable work) {
    Thread thread = new Thread(work, "pack");
    thread.setDaemon(true);
    return thread;
  }

  int count() {
    return count;
  }

  <T> Future<T> begin(Callable<T> work) {
    return workers.submit(work);
  }

  /** Waits for what was begun; what it threw is thrown here. */
  static <T> T result(Future<T> future) throws IOException {
    try {
      return future.get();
    } catch (ExecutionException e) {
      if (e.getCause() instanceof IOException io) {
        throw io;
      }
      if (e.getCause() instanceof PackException pack) {
        throw pack;
      }
      throw new IllegalStateException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("packing was interrupted", e);
    }
  }

  @Override
  public void close() {
    workers.shutdownNow();
  }
}

package jollycrate.check;

import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;

/** Exchanges that go on, of which one thread looks whether they take too long. */
final class OpenExchanges implements AutoCloseable {
  private static final long LOOK_AGAIN_MILLIS = 50;

  private final Set<Exchange> open = ConcurrentHashMap.newKeySet();
  private final ScheduledExecutorService watch =
      Executors.newSingleThreadScheduledExecutor(AtOnce.daemons("exchanges"));

  OpenExchanges() {
    watch.scheduleWithFixedDelay(
        () -> open.forEach(Exchange::look),
        LOOK_AGAIN_MILLIS,
        LOOK_AGAIN_MILLIS,
        TimeUnit.MILLISECONDS);
  }

  void begins(Exchange exchange) {
    open.add(exchange);
  }

  void ends(Exchange exchange) {
    open.remove(exchange);
  }

  @Override
  public void close() {
    watch.shutdownNow();
  }
}

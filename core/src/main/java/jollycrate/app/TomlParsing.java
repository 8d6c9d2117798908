package jollycrate.app;

import java.lang.management.ManagementFactory;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.tomlj.Toml;
import org.tomlj.TomlParseResult;

/**
 * Parses within bounds: of a text full of faults the parser tries to make sense for minutes, and
 * with each level of nesting it goes deeper.
 */
final class TomlParsing {
  private static final Duration MOST_PROCESSOR = Duration.ofSeconds(4);
  private static final long STACK_BYTES = 16 << 20;

  private TomlParsing() {}

  /**
   * What a text holds, with its faults.
   *
   * @throws NotDescribedException when it cannot be parsed within the bounds
   */
  static TomlParseResult of(Path path, String text) {
    FutureTask<TomlParseResult> task = new FutureTask<>(() -> Toml.parse(text));
    Thread parser = new Thread(null, task, "toml", STACK_BYTES);
    parser.setDaemon(true);
    parser.start();
    while (true) {
      try {
        return task.get(1, TimeUnit.SECONDS);
      } catch (TimeoutException slow) {
        if (used(parser).compareTo(MOST_PROCESSOR) > 0) {
          throw refused(path, "it is no TOML that anybody could read in a few seconds");
        }
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        throw refused(path, "reading it was interrupted");
      } catch (ExecutionException e) {
        if (e.getCause() instanceof StackOverflowError) {
          throw refused(path, "its values are nested too deeply");
        }
        throw e.getCause() instanceof RuntimeException fault
            ? fault
            : new IllegalStateException(e.getCause());
      }
    }
  }

  private static Duration used(Thread thread) {
    return Duration.ofNanos(
        Math.max(0, ManagementFactory.getThreadMXBean().getThreadCpuTime(thread.getId())));
  }

  private static NotDescribedException refused(Path path, String reason) {
    return new NotDescribedException(
        "Cannot read '"
            + path
            + "': "
            + reason
            + ". Look for brackets that nobody closes, or begin anew");
  }
}

package jollycrate.host;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;

/** What a program prints; whatever it leaves running may hold the pipe open after its end. */
public record Words(ByteArrayOutputStream read, CountDownLatch end) {
  private static final long AFTER_THE_END_MILLIS = 1000;

  /** Of a stream, which is read at once, and closed. */
  public static Words of(InputStream in) {
    Words words = new Words(new ByteArrayOutputStream(), new CountDownLatch(1));
    inBackground(
        () -> {
          try (in) {
            in.transferTo(words.read());
          } catch (IOException e) {
            words.cut(e);
          } finally {
            words.end().countDown();
          }
        });
    return words;
  }

  private void cut(IOException e) {
    read.writeBytes(("\n(" + e.getMessage() + ")\n").getBytes(StandardCharsets.UTF_8));
  }

  /** What came until its end, or until a moment after the end of the program. */
  public String text() {
    try {
      end.await(AFTER_THE_END_MILLIS, TimeUnit.MILLISECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    return read.toString(StandardCharsets.UTF_8);
  }

  /** Does something that nobody waits for. */
  public static void inBackground(Runnable work) {
    Thread thread = new Thread(work);
    thread.setDaemon(true);
    thread.start();
  }
}

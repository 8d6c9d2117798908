import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;

/** Asks a page over and over until a file appears: answers, failures, and the longest gap. */
public class Gap {
  public static void main(String[] args) throws Exception {
    Path end = Path.of(args[1]);
    long good = 0;
    long bad = 0;
    long longest = 0;
    long last = System.nanoTime();
    while (!Files.exists(end)) {
      try {
        HttpURLConnection page = (HttpURLConnection) URI.create(args[0]).toURL().openConnection();
        page.setConnectTimeout(5000);
        page.setReadTimeout(5000);
        page.getInputStream().readAllBytes();
        long now = System.nanoTime();
        longest = Math.max(longest, now - last);
        last = now;
        good++;
      } catch (java.io.IOException e) {
        bad++;
        Thread.sleep(1);
      }
    }
    System.out.printf("%d good, %d failed, longest gap %d ms%n", good, bad, longest / 1_000_000);
  }
}

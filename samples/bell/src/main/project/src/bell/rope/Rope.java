package bell.rope;

import bell.sound.Tone;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;

/** Rings the bell from elsewhere: {@code java -jar rope.jar http://127.0.0.1:8085/ dong}. */
public final class Rope {
  private Rope() {}

  public static void main(String[] args) throws IOException {
    Tone tone = Tone.of(args.length > 1 ? args[1] : "");
    URI bell = URI.create(args[0]).resolve("rings?" + tone.name().toLowerCase());
    HttpURLConnection connection = (HttpURLConnection) bell.toURL().openConnection();
    connection.setRequestMethod("POST");
    byte[] answer = connection.getInputStream().readAllBytes();
    System.out.println(tone + " " + new String(answer, StandardCharsets.UTF_8));
  }
}

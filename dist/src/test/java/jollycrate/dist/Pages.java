package jollycrate.dist;

import java.io.IOException;
import java.io.InputStream;
import java.net.HttpURLConnection;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.Base64;

/** What a server answers, each as its status and its body. */
final class Pages {
  private Pages() {}

  static String get(String url) throws IOException {
    return request("GET", url);
  }

  static String request(String method, String url) throws IOException {
    HttpURLConnection connection = to(url);
    connection.setRequestMethod(method);
    return answer(connection);
  }

  /** For somebody who says who he is (RFC 7617). */
  static String get(String url, String user, String password) throws IOException {
    HttpURLConnection connection = to(url);
    byte[] both = (user + ":" + password).getBytes(StandardCharsets.UTF_8);
    connection.setRequestProperty(
        "Authorization", "Basic " + Base64.getEncoder().encodeToString(both));
    return answer(connection);
  }

  /** The status alone. */
  static int status(String url, String user, String password) throws IOException {
    return Integer.parseInt(get(url, user, password).split(" ", 2)[0]);
  }

  private static HttpURLConnection to(String url) throws IOException {
    return (HttpURLConnection) URI.create(url).toURL().openConnection();
  }

  private static String answer(HttpURLConnection connection) throws IOException {
    int status = connection.getResponseCode();
    InputStream body = status < 400 ? connection.getInputStream() : connection.getErrorStream();
    return status
        + " "
        + (body == null ? "" : new String(body.readAllBytes(), StandardCharsets.UTF_8));
  }
}

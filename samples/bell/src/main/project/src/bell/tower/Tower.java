package bell.tower;

import bell.sound.Tone;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.util.Properties;

/**
 * The workshop's pick-up bell: {@code POST /rings} rings it, {@code GET /rings} tells how often it
 * rang. Port and database stand in {@code bell.properties}, the one outside over the one inside: in
 * the working folder, or where the second argument says. The first argument is the port.
 */
public final class Tower {
  private final Rings rings;
  private final String greeting;

  private Tower(Rings rings, String greeting) {
    this.rings = rings;
    this.greeting = greeting;
  }

  public static void main(String[] args) throws IOException, SQLException {
    Properties settings = settings(Path.of(args.length > 1 ? args[1] : "bell.properties"));
    int port = Integer.parseInt(args.length > 0 ? args[0] : settings.getProperty("port"));
    Rings rings =
        new Rings(
            settings.getProperty("url"),
            settings.getProperty("user"),
            settings.getProperty("password", ""));
    HttpServer server = HttpServer.create(new InetSocketAddress("127.0.0.1", port), 0);
    Tower tower = new Tower(rings, settings.getProperty("greeting"));
    server.createContext("/", tower::answer);
    server.start();
    System.out.println("The bell hangs at http://127.0.0.1:" + server.getAddress().getPort() + "/");
  }

  private static Properties settings(Path outside) throws IOException {
    Properties settings = new Properties();
    try (InputStream in = Tower.class.getResourceAsStream("/bell.properties")) {
      settings.load(in);
    }
    if (Files.isRegularFile(outside)) {
      try (InputStream in = Files.newInputStream(outside)) {
        settings.load(in);
      }
    }
    return settings;
  }

  private void answer(HttpExchange exchange) throws IOException {
    try {
      String request = exchange.getRequestMethod() + " " + exchange.getRequestURI().getPath();
      switch (request) {
        case "GET /" -> send(exchange, 200, "text/plain", greeting);
        case "GET /rings" -> count(exchange, 200);
        case "POST /rings" -> {
          rings.add(Tone.of(exchange.getRequestURI().getQuery()));
          count(exchange, 201);
        }
        default -> send(exchange, 404, "text/plain", "no such thing");
      }
    } catch (SQLException | IllegalArgumentException e) {
      send(exchange, 500, "text/plain", e.toString());
    }
  }

  private void count(HttpExchange exchange, int status) throws IOException, SQLException {
    send(exchange, status, "application/json", "{\"rings\":" + rings.count() + "}");
  }

  private static void send(HttpExchange exchange, int status, String type, String text)
      throws IOException {
    byte[] body = text.getBytes(StandardCharsets.UTF_8);
    exchange.getResponseHeaders().set("Content-Type", type + ";charset=UTF-8");
    exchange.sendResponseHeaders(status, body.length);
    exchange.getResponseBody().write(body);
    exchange.close();
  }
}

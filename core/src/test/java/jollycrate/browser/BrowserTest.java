package jollycrate.browser;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import jollycrate.host.Needs;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What scripts of a page ask for and complain of is seen; needs a Chromium on the path. */
class BrowserTest {
  private static final String PAGE =
      """
      <title>Desk</title><script>
      fetch("tickets").then(answer => answer.json()).then(all => fetch("gone/" + all.length))
        .then(() => console.error("no", "bell"));
      fetch("http://elsewhere.example/").catch(() => missing());
      fetch("http://127.0.0.1:%d/", {method: "POST", mode: "no-cors"}).catch(() => 0);
      </script>""";

  private final Queue<String> asked = new ConcurrentLinkedQueue<>();
  private final Optional<Browser> browser = Browser.installed();
  private HttpServer server;
  private HttpServer other;
  private URI base;

  @BeforeEach
  void start() throws IOException {
    Needs.here(browser.isPresent(), "no Chromium is installed here");
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.setExecutor(Executors.newCachedThreadPool());
    server.createContext(
        "/",
        exchange -> {
          String path = exchange.getRequestURI().getPath();
          asked.add(
              path
                  + " "
                  + exchange.getRequestHeaders().getFirst("Authorization")
                  + " "
                  + exchange.getRequestHeaders().getFirst("Cookie"));
          String text =
              path.equals("/desk/") ? PAGE.formatted(other.getAddress().getPort()) : "[1, 2]";
          byte[] body = text.getBytes(StandardCharsets.UTF_8);
          String type = path.equals("/desk/") ? "text/html" : "application/json";
          exchange.getResponseHeaders().set("Content-Type", type);
          exchange.sendResponseHeaders(path.startsWith("/desk/gone") ? 404 : 200, body.length);
          exchange.getResponseBody().write(body);
          exchange.close();
        });
    other = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    other.createContext(
        "/",
        exchange -> {
          asked.add("another server");
          exchange.sendResponseHeaders(200, -1);
          exchange.close();
        });
    other.start();
    server.start();
    base = URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/desk/");
  }

  @AfterEach
  void stop() {
    if (server != null) {
      server.stop(0);
      other.stop(0);
    }
  }

  @Test
  void scriptsAreRunAndTheirCallsAndErrorsTold() {
    Visit visit =
        new Visit(
            base,
            Map.of("Authorization", "Bearer t0k"),
            List.of(new Visit.Cookie("visit", "v1", "127.0.0.1", "/")),
            Duration.ofSeconds(60));
    Seen seen = browser.orElseThrow().visit(visit);
    assertThat(seen.calls())
        .contains(
            new Seen.Call("GET", base.toString(), 200, ""),
            new Seen.Call("GET", base + "tickets", 200, ""),
            new Seen.Call("GET", base + "gone/2", 404, ""))
        .anyMatch(call -> call.url().contains("elsewhere") && call.status() == 0);
    assertThat(seen.errors())
        .anyMatch(error -> error.matches("no bell at http.*/desk/:\\d+"))
        .anyMatch(error -> error.startsWith("ReferenceError: missing is not defined"));
    assertThat(asked)
        .contains("/desk/tickets Bearer t0k visit=v1")
        .doesNotContain("another server");
    byte[] picture = Base64.getDecoder().decode(seen.picture());
    assertThat(picture).startsWith(0xFF, 0xD8);
  }
}

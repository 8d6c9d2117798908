package jollycrate.check;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.zip.GZIPOutputStream;
import jollycrate.app.Application;
import jollycrate.app.ApplicationFile;
import jollycrate.browser.Browser;
import jollycrate.host.Needs;
import jollycrate.secret.Reference;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Several requests of one check, against a small workshop that keeps tickets. */
class SequenceTest {
  private static final String FORM =
      "<form action=enter method=post><input type=hidden name=seal value=s1>"
          + "<input name=who><input type=password name=word></form>";

  private final List<String> hidden = new ArrayList<>();
  private final Set<String> tickets = new TreeSet<>();
  private final List<String> asked = Collections.synchronizedList(new ArrayList<>());
  private HttpServer server;
  private URI base;

  @TempDir Path folder;

  @BeforeEach
  void start() throws IOException {
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    server.createContext("/spokes/", this::answer);
    server.start();
    base = URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/spokes/");
  }

  @AfterEach
  void stop() {
    server.stop(0);
  }

  private void answer(HttpExchange exchange) throws IOException {
    String path = exchange.getRequestURI().getPath().substring("/spokes".length());
    String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
    String ticket = path.replaceFirst(".*/", "");
    asked.add(exchange.getRequestMethod() + " " + path);
    switch (exchange.getRequestMethod() + " " + path.replaceFirst("(?<=^/tickets/).*", "X")) {
      case "POST /tickets" -> {
        tickets.add("7");
        exchange.getResponseHeaders().set("Location", "/spokes/tickets/7");
        send(exchange, 201, "{\"id\": 7, \"made\": " + body + "}");
      }
      case "GET /tickets/X" -> send(exchange, tickets.contains(ticket) ? 200 : 404, "bell");
      case "DELETE /tickets/X" -> send(exchange, tickets.remove(ticket) ? 204 : 404, "");
      case "GET /desk" -> {
        exchange.getResponseHeaders().set("Set-Cookie", "visit=v1");
        send(exchange, 200, in(exchange) ? "the desk" : FORM);
      }
      case "POST /enter" -> {
        boolean right = body.equals("seal=s1&who=mia&word=a%26b") && cookie(exchange, "visit=v1");
        exchange.getResponseHeaders().set("Location", "desk");
        exchange.getResponseHeaders().set("Set-Cookie", right ? "in=yes" : "in=no");
        send(exchange, 303, "");
      }
      case "GET /once" ->
          send(exchange, asked.stream().filter("GET /once"::equals).count() == 1 ? 200 : 404, "");
      case "GET /bare" ->
          send(exchange, 200, in(exchange) ? "inside" : FORM.replace("action=enter ", ""));
      case "POST /bare" -> {
        exchange.getResponseHeaders().set("Set-Cookie", "in=yes");
        send(exchange, 200, "inside");
      }
      case "GET /astray" -> {
        exchange.getResponseHeaders().set("Location", "http://a b/");
        send(exchange, 302, "");
      }
      case "POST /login" -> {
        boolean right = body.equals("{\"username\":\"mia\",\"password\":\"a&b\"}");
        send(exchange, right ? 200 : 401, "{\"got\": {\"token\": \"t1\"}}");
      }
      case "GET /app" -> {
        exchange.getResponseHeaders().set("Content-Type", "text/html");
        send(exchange, 200, "<script>fetch('/api/a'); fetch('/api/b')</script>");
      }
      case "POST /photos" -> send(exchange, 200, body);
      case "GET /token" ->
          send(exchange, 200, "" + exchange.getRequestHeaders().getFirst("Authorization"));
      case "GET /zipped", "GET /badly" -> {
        exchange.getResponseHeaders().set("Content-Encoding", "gzip");
        exchange.sendResponseHeaders(200, 0);
        try (OutputStream out =
            path.equals("/badly")
                ? exchange.getResponseBody()
                : new GZIPOutputStream(exchange.getResponseBody())) {
          out.write("spokes and rims".getBytes(StandardCharsets.UTF_8));
        }
      }
      case "GET /long" -> {
        exchange.sendResponseHeaders(200, 0);
        try (OutputStream out = exchange.getResponseBody()) {
          for (int i = 0; i < 100; i++) {
            out.write(new byte[1 << 20]);
          }
        }
      }
      default -> send(exchange, 404, "");
    }
  }

  private static boolean in(HttpExchange exchange) {
    return cookie(exchange, "in=yes");
  }

  private static boolean cookie(HttpExchange exchange, String cookie) {
    return exchange.getRequestHeaders().getOrDefault("Cookie", List.of("")).get(0).contains(cookie);
  }

  private static void send(HttpExchange exchange, int status, String text) throws IOException {
    byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
    exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
    exchange.getResponseBody().write(bytes);
    exchange.close();
  }

  private CheckResult run(String text) throws IOException {
    Path file =
        Files.writeString(folder.resolve("jolly.toml"), "name = \"a\"\nartifact = \"a\"\n" + text);
    Application read = ApplicationFile.read(file, Optional.empty(), Reference::text);
    People people =
        new People(
            Map.of("mia", "a&b", "shelf", "t0k"), read.access().logIns(), hidden::add, Map.of());
    try (HttpRequester requester = new HttpRequester(() -> false)) {
      return new Checker(requester, base, people).run(read.checks().get(0));
    }
  }

  private static final String MADE =
      """
      [values]
      part = "bell"
      [[check]]
      name = "a ticket comes and goes"
      [[check.request]]
      post     = "/tickets"
      body     = { note = "{part} {unique}", part = "{part}" }
      status   = 201
      json     = { "/made/part" = "{part}" }
      remember = { ticket = "/id", where = "header:Location", made = 'text:note\\W+(\\w+)' }
      [[check.request]]
      get  = "{where}"
      text = "{made}"
      [[check.request]]
      get  = "/tickets/{ticket}"
      %s
      [[check.afterwards]]
      delete = "/tickets/{ticket}"
      """;

  @Test
  void whatIsRememberedIsUsedAndRemovedAgain() throws IOException {
    assertThat(run(MADE.formatted("text = \"bell\"")).misses()).isEmpty();
    assertThat(asked)
        .containsExactly("POST /tickets", "GET /tickets/7", "GET /tickets/7", "DELETE /tickets/7");
    assertThat(tickets).isEmpty();
  }

  @Test
  void theFirstFailureEndsItAndIsCleanedUpAfter() throws IOException {
    CheckResult result = run(MADE.formatted("status = 410\n[[check.request]]\nget = \"/never\""));
    assertThat(result.misses()).containsExactly(new CheckResult.Miss("status", "410", "200"));
    assertThat(result.request()).endsWith("/spokes/tickets/7 (request 3 of 4)");
    assertThat(tickets).isEmpty();
  }

  @Test
  void whatCannotBeRemovedIsTold() throws IOException {
    String gone = "[[check.request]]\ndelete = \"/tickets/{ticket}\"";
    CheckResult result = run(MADE.formatted("text = \"bell\"\n" + gone));
    assertThat(result.misses())
        .containsExactly(
            new CheckResult.Miss("afterwards, DELETE /tickets/7", "status 200 to 299", "404"));
  }

  @Test
  void whatWasNeverMadeIsNotRemoved() throws IOException {
    CheckResult result =
        run(
            "[[check]]\n[[check.request]]\nget = \"/none\"\nremember = { ticket = \"/id\" }\n"
                + "[[check.afterwards]]\ndelete = \"/tickets/{ticket}\"");
    assertThat(result.misses()).hasSize(1);
    assertThat(asked).containsExactly("GET /none");
  }

  @Test
  void anAddressElsewhereIsNotAsked() throws IOException {
    CheckResult result =
        run(
            "[[check]]\n[[check.request]]\npost = \"/photos\"\nbody = \"http://127.0.0.2:1/\"\n"
                + "remember = { where = \"\" }\n[[check.request]]\nget = \"{where}x\"");
    assertThat(result.misses().get(0).got()).isEqualTo("http://127.0.0.2:1/x");
    assertThat(result.cause().orElseThrow().what()).contains("not on the application's own server");
  }

  @Test
  void aFormIsFilledInAsAPersonWould() throws IOException {
    String check = "[[check]]\nget = \"/desk\"\nas = \"mia\"\ntext = \"the desk\"\n[logins.mia]\n";
    assertThat(run(check + "form = \"/desk\"\npassword = \"env:M\"").misses()).isEmpty();
    CheckResult refused =
        run(check.replace("mia", "shelf") + "form = \"/desk\"\npassword = \"env:M\"");
    assertThat(refused.misses())
        .containsExactly(
            new CheckResult.Miss(
                "log-in", "shelf is let in", "/spokes/desk (200) shows the form again"));
    assertThat(run(check + "form = \"/token\"\npassword = \"env:M\"").misses().get(0).got())
        .isEqualTo("/spokes/token (200) shows no form with a field for a password");
  }

  @Test
  void aFormWithoutAnActionGoesToItsOwnPage() throws IOException {
    String check = "[[check]]\nget = \"/bare\"\nas = \"mia\"\ntext = \"inside\"\n[logins.mia]\n";
    assertThat(run(check + "form = \"/bare\"\npassword = \"env:M\"").misses()).isEmpty();
    assertThat(run(check + "form = \"/astray\"\npassword = \"env:M\"").misses().get(0).got())
        .isEqualTo("/spokes/astray (302) shows no form with a field for a password");
  }

  @Test
  void aTokenIsShownWithEachRequest() throws IOException {
    String check = "[[check]]\nget = \"/token\"\nas = \"shelf\"\ntext = \"Bearer t0k\"\n";
    assertThat(run(check + "[logins]\nshelf = { token = \"env:T\" }").misses()).isEmpty();
  }

  @Test
  void aRequestGivesTheTokenThatIsShownFromThenOn() throws IOException {
    String check = "[[check]]\nget = \"/token\"\nas = \"mia\"\ntext = \"Bearer t1\"\n";
    String logIn = "[logins.mia]\npost = \"/login\"\npassword = \"env:M\"\n";
    assertThat(run(check + logIn + "token-at = \"/got/token\"").misses()).isEmpty();
    assertThat(hidden).containsExactly("t1");
    assertThat(run(check + logIn + "token-at = \"/got/key\"").misses())
        .containsExactly(
            new CheckResult.Miss(
                "log-in", "mia is let in", "/spokes/login (200) tells no token at /got/key"));
    assertThat(run(check + logIn + "body = { me = \"{user}\" }").misses().get(0).got())
        .isEqualTo("/spokes/login: 401");
  }

  @Test
  void callsOfScriptsThatAreMadeForTheRootAreToldAsThat() throws IOException {
    Needs.here(Browser.installed().isPresent(), "no Chromium is installed here");
    assertThat(run("[[check]]\npage = \"/app\"\nbrowser = true").cause().orElseThrow().what())
        .isEqualTo(
            "2 calls of its scripts got no answer: asked for at /,"
                + " and the application stands at /spokes");
  }

  @Test
  void aFileIsSentWithItsForm() throws IOException {
    Files.writeString(folder.resolve("bike.txt"), "two wheels");
    CheckResult result =
        run(
            "[[check]]\npost = \"/photos\"\nform = { of = \"Tandem\" }\n"
                + "upload = { photo = \"bike.txt\" }\n"
                + "matches = \"(?s)name=.of.*Tandem.*name=.photo.; filename=.bike.txt.*two wheels\"");
    assertThat(result.misses()).isEmpty();
  }

  @Test
  void timesAreMeasuredAndBounded() throws IOException {
    String check = "[[check]]\nget = \"/desk\"\n";
    CheckResult right = run(check + "time = { requests = 50, at-once = 4, p95 = \"1m\" }");
    assertThat(right.misses()).isEmpty();
    Times times = right.times().orElseThrow();
    assertThat(times.requests()).isEqualTo(50);
    assertThat(times.errors()).isZero();
    assertThat(times.bars().stream().mapToLong(Times.Bar::count).sum()).isEqualTo(50);
    assertThat(times.percentiles().p50())
        .isPositive()
        .isLessThanOrEqualTo(times.percentiles().p99());
    assertThat(run(check + "time = { requests = 9, longest = \"0ms\" }").misses())
        .extracting(CheckResult.Miss::what)
        .containsExactly("longest");
    String once = "[[check]]\nget = \"/once\"\ntime = { requests = 9 }";
    assertThat(run(once).misses().get(0).got()).isEqualTo("9 of 9 wrong, the first: status 404");
  }

  @Test
  void bodiesAreUnfoldedComparedAndReadToTheirEnd() throws IOException {
    Files.writeString(folder.resolve("rims.txt"), "spokes and rims");
    assertThat(run("[[check]]\nget = \"/zipped\"\nsame-as = \"rims.txt\"").misses()).isEmpty();
    assertThat(run("[[check]]\nget = \"/badly\"").cause().orElseThrow().what())
        .contains("not compressed as its header says");
    assertThat(run("[[check]]\nget = \"/long\"\nsize = 104857600").misses()).isEmpty();
  }
}

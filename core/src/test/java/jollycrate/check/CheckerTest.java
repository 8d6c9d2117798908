package jollycrate.check;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.IntNode;
import com.fasterxml.jackson.databind.node.TextNode;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Base64;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.Expect;
import jollycrate.app.Statuses;
import org.assertj.core.groups.Tuple;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Refused, too late, 404, 401 and 500 are different stories. */
class CheckerTest {
  private final AtomicInteger requests = new AtomicInteger();
  private final CountDownLatch patience = new CountDownLatch(1);
  private HttpServer server;
  private URI base;

  @BeforeEach
  void start() throws IOException {
    server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    answer(
        "/status",
        exchange -> Integer.parseInt(exchange.substring(1)),
        "[{\"bike\":\"Tandem\",\"n\":2}]");
    server.createContext(
        "/slow",
        exchange -> {
          try {
            patience.await();
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
          }
          exchange.close();
        });
    server.createContext(
        "/latin",
        exchange -> {
          String sent = exchange.getRequestHeaders().getFirst("Authorization");
          byte[] pair = Base64.getDecoder().decode(sent.substring("Basic ".length()));
          boolean right = new String(pair, StandardCharsets.ISO_8859_1).equals("anna:ü");
          exchange.sendResponseHeaders(right ? 200 : 401, -1);
          exchange.close();
        });
    server.setExecutor(Executors.newCachedThreadPool());
    server.start();
    base = URI.create("http://127.0.0.1:" + server.getAddress().getPort() + "/");
  }

  /** Chooses a status by the rest of the path. */
  private interface Status {
    int of(String rest);
  }

  private void answer(String path, Status status, String body) {
    server.createContext(
        path,
        exchange -> {
          requests.incrementAndGet();
          exchange.getRequestBody().readAllBytes();
          byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
          int code = status.of(exchange.getRequestURI().getPath().substring(path.length()));
          exchange.sendResponseHeaders(code, bytes.length);
          exchange.getResponseBody().write(bytes);
          exchange.close();
        });
  }

  @AfterEach
  void stop() {
    patience.countDown();
    server.stop(0);
    ((ExecutorService) server.getExecutor()).shutdownNow();
  }

  private static Check check(
      String method, String path, Map<String, JsonNode> json, Optional<String> text) {
    return check(method, path, Optional.empty(), text, json, Optional.empty());
  }

  private static Check check(
      String method,
      String path,
      Optional<String> user,
      Optional<String> text,
      Map<String, JsonNode> json,
      Optional<Duration> within) {
    return new Check(
        "c",
        new Ask(method, path, Map.of(), Optional.empty(), user),
        new Expect(
            Statuses.SUCCESS,
            Expect.Head.ANY,
            new Expect.Body(text, Optional.empty(), json, Optional.empty(), Optional.empty()),
            within,
            Optional.empty()));
  }

  private CheckResult run(Check check) {
    try (HttpRequester requester = new HttpRequester(() -> false)) {
      return new Checker(
              requester, base, new People(Map.of("anna", "ü"), Map.of(), text -> {}, Map.of()))
          .run(check);
    }
  }

  @ParameterizedTest
  @CsvSource({
    "401, the log-in was not accepted",
    "403, known but not allowed in",
    "404, nothing is mapped to this path",
    "405, does not take this method",
    "500, failed with an error of its own",
    "502, not there for the server or proxy",
    "302, answered, but otherwise"
  })
  void eachStatusHasItsStory(int status, String story) {
    CheckResult result = run(check("GET", "/status/" + status, Map.of(), Optional.empty()));
    assertThat(result.misses())
        .containsExactly(new CheckResult.Miss("status", "200 to 299", "" + status));
    assertThat(result.cause().orElseThrow().what()).contains(story);
  }

  @Test
  void valuesInTheAnswerAreCompared() {
    Map<String, JsonNode> expected =
        Map.of("/0/bike", TextNode.valueOf("Tandem"), "/0/n", IntNode.valueOf(2));
    assertThat(run(check("GET", "/status/200", expected, Optional.of("Tandem"))).passed()).isTrue();
    CheckResult wrong =
        run(check("GET", "/status/200", Map.of("/1/n", IntNode.valueOf(2)), Optional.of("Quad")));
    assertThat(wrong.misses())
        .extracting(CheckResult.Miss::what, CheckResult.Miss::got)
        .containsExactlyInAnyOrder(
            Tuple.tuple("text", "[{\"bike\":\"Tandem\",\"n\":2}]"),
            Tuple.tuple("/1/n", "nothing there"));
  }

  @Test
  void aRequestIsSentOnce() {
    run(check("POST", "/status/503", Map.of(), Optional.empty()));
    run(check("PATCH", "/status/200", Map.of(), Optional.empty()));
    assertThat(requests).hasValue(2);
  }

  @Test
  void aPasswordBeyondAsciiIsUnderstoodByServersOfEitherHabit() {
    Check check =
        check("GET", "/latin", Optional.of("anna"), Optional.empty(), Map.of(), Optional.empty());
    assertThat(run(check).passed()).isTrue();
  }

  @Test
  void noAnswerAtAllHasStoriesOfItsOwn() throws IOException {
    try (HttpRequester requester = new HttpRequester(() -> false);
        ServerSocket rude = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
      Answer late = send(requester, base.resolve("slow"), Duration.ofMillis(200));
      assertThat(late.failure()).contains("connected, but no answer came within 200 ms");
      Thread closing =
          new Thread(
              () -> {
                try (Socket socket = rude.accept()) {
                  socket.getInputStream().read();
                } catch (IOException e) {
                  Thread.currentThread().interrupt();
                }
              });
      closing.start();
      URI rudeOne = URI.create("http://127.0.0.1:" + rude.getLocalPort() + "/");
      assertThat(send(requester, rudeOne, Duration.ofSeconds(5)).failure())
          .containsAnyOf("closed the connection without an answer", "broke off");
      server.stop(0);
      assertThat(send(requester, base, Duration.ofSeconds(5)).failure())
          .contains("refused: nothing listens there");
    }
  }

  /** Sends headers at once and then a byte now and then, for ever. */
  private void dripping() {
    server.createContext(
        "/dripping",
        exchange -> {
          exchange.sendResponseHeaders(200, 0);
          try {
            while (!patience.await(20, TimeUnit.MILLISECONDS)) {
              exchange.getResponseBody().write('x');
              exchange.getResponseBody().flush();
            }
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
          }
        });
  }

  @Test
  void anAnswerThatNeverEndsIsGivenUp() {
    dripping();
    try (HttpRequester requester = new HttpRequester(() -> false)) {
      assertThat(send(requester, base.resolve("status/200"), Duration.ofHours(1)).came()).isTrue();
      assertThat(send(requester, base.resolve("dripping"), Duration.ofSeconds(2)).failure())
          .isEqualTo("an answer began, but did not end within 2000 ms");
    }
    try (HttpRequester requester = new HttpRequester(() -> true)) {
      assertThat(send(requester, base.resolve("dripping"), Duration.ofHours(1)).failure())
          .contains("a signal asked to stop");
    }
  }

  /** The headers are there at once, the body comes when somebody lets it. */
  @Test
  void timeIsTakenUpToTheLastByte() {
    server.createContext(
        "/body",
        exchange -> {
          exchange.sendResponseHeaders(200, 0);
          exchange.getResponseBody().flush();
          long began = System.nanoTime();
          while (System.nanoTime() - began < Duration.ofMillis(300).toNanos()) {
            Thread.onSpinWait();
          }
          exchange.close();
        });
    Optional<Duration> within = Optional.of(Duration.ofMillis(200));
    Check check = check("GET", "/body", Optional.empty(), Optional.empty(), Map.of(), within);
    assertThat(run(check).misses()).extracting(CheckResult.Miss::what).containsExactly("time");
  }

  @ParameterizedTest
  @CsvSource({
    "text/html;charset=ISO-8859-1, ISO-8859-1, <p>Räder",
    "text/html, ISO-8859-1, <meta charset=iso-8859-1><p>Räder",
    "text/html, UTF-8, <meta charset=utf-8><p>Räder",
    "text/plain;charset=none-such, UTF-8, Räder",
    "text/plain, ISO-8859-1, Räder",
    "application/json, UTF-8, Räder",
    "'', UTF-8, Räder"
  })
  void aBodyIsReadInTheEncodingThatItHas(String type, String encoding, String body)
      throws IOException {
    assertThat(BodyText.of(type, body.getBytes(encoding))).isEqualTo(body);
  }

  private static Answer send(Requester requester, URI url, Duration limit) {
    return requester.send(Requester.Request.get(url), limit);
  }
}

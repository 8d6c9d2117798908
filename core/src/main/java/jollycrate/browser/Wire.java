package jollycrate.browser;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.WebSocket;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.CompletionStage;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BiConsumer;
import jollycrate.json.Json;

/**
 * Commands and events of a browser over its debugging protocol (Chrome DevTools Protocol, 1.3), in
 * JSON over a WebSocket (RFC 6455).
 */
final class Wire implements WebSocket.Listener, AutoCloseable {
  private static final Duration ANSWER = Duration.ofSeconds(15);

  private final Map<Integer, CompletableFuture<JsonNode>> open = new ConcurrentHashMap<>();
  private final AtomicInteger last = new AtomicInteger();
  private final StringBuilder message = new StringBuilder();
  private final BiConsumer<String, JsonNode> events;
  private final WebSocket socket;

  /** A text is sent once the one before it was. */
  private CompletableFuture<WebSocket> sending = CompletableFuture.completedFuture(null);

  /**
   * @param events told of each by name, with its parameters
   */
  Wire(URI address, BiConsumer<String, JsonNode> events) {
    this.events = events;
    try {
      this.socket =
          HttpClient.newHttpClient()
              .newWebSocketBuilder()
              .connectTimeout(ANSWER)
              .buildAsync(address, this)
              .join();
    } catch (CompletionException e) {
      throw new BrowserException("it takes no connection: " + e.getCause().getMessage());
    }
  }

  /**
   * Sends a command and waits for what it gives.
   *
   * @param session of a page; empty: the browser itself
   */
  JsonNode send(String session, String method, Map<String, ?> parameters) {
    CompletableFuture<JsonNode> answer = post(session, method, parameters);
    try {
      JsonNode told = answer.get(ANSWER.toSeconds(), TimeUnit.SECONDS);
      if (told.has("error")) {
        throw new BrowserException(method + ": " + told.path("error").path("message").asText());
      }
      return told.path("result");
    } catch (TimeoutException e) {
      throw new BrowserException(method + " had no answer within " + ANSWER.toSeconds() + " s");
    } catch (ExecutionException e) {
      throw new BrowserException(method + ": " + e.getCause().getMessage());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new BrowserException(method + " was interrupted");
    }
  }

  /** Sends a command; what it gives comes later. Whoever is told of an event may do that. */
  CompletableFuture<JsonNode> post(String session, String method, Map<String, ?> parameters) {
    int id = last.incrementAndGet();
    CompletableFuture<JsonNode> answer = new CompletableFuture<>();
    open.put(id, answer);
    ObjectNode command = JsonNodeFactory.instance.objectNode();
    command.put("id", id).put("method", method);
    command.set("params", Json.tree(parameters));
    if (!session.isEmpty()) {
      command.put("sessionId", session);
    }
    String text = Json.line(command);
    synchronized (this) {
      sending = sending.thenCompose(sent -> socket.sendText(text, true));
    }
    return answer;
  }

  @Override
  public CompletionStage<?> onText(WebSocket from, CharSequence data, boolean whole) {
    message.append(data);
    if (whole) {
      String text = message.toString();
      message.setLength(0);
      Json.read(text, JsonNode.class).ifPresent(this::came);
    }
    from.request(1);
    return null;
  }

  private void came(JsonNode told) {
    if (told.has("id")) {
      CompletableFuture<JsonNode> waiting = open.remove(told.path("id").asInt());
      if (waiting != null) {
        waiting.complete(told);
      }
    } else {
      events.accept(told.path("method").asText(), told.path("params"));
    }
  }

  @Override
  public void close() {
    socket.abort();
  }
}

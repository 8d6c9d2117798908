package jollycrate.browser;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;

/** What a page does while a browser loads it, put together from events. */
final class Watched {
  private static final int MOST_ERRORS = 20;

  /** What browsers ask each server for, whether somebody refers to it or not. */
  private static final Pattern BY_ITSELF = Pattern.compile("https?://[^/]+/favicon\\.ico");

  private final Map<String, Seen.Call> calls = new LinkedHashMap<>();
  private final List<String> errors = new ArrayList<>();
  private final List<String> open = new ArrayList<>();
  private long changed = System.nanoTime();
  private boolean loaded;

  synchronized void event(String method, JsonNode told) {
    String id = told.path("requestId").asText();
    switch (method) {
      case "Network.requestWillBeSent" -> begins(id, told.path("request"));
      case "Network.responseReceived" ->
          answered(id, told.path("response").path("status").asInt(), "");
      case "Network.loadingFinished" -> ends(id);
      case "Network.loadingFailed" -> {
        if (!told.path("canceled").asBoolean()) {
          answered(id, 0, told.path("errorText").asText());
        }
        ends(id);
      }
      case "Page.loadEventFired" -> loaded = true;
      case "Runtime.exceptionThrown" -> thrown(told.path("exceptionDetails"));
      case "Runtime.consoleAPICalled" -> printed(told);
      default -> {
        return;
      }
    }
    changed = System.nanoTime();
  }

  private void begins(String id, JsonNode request) {
    String url = request.path("url").asText();
    if (url.startsWith("http") && !BY_ITSELF.matcher(url).matches()) {
      calls.put(id, new Seen.Call(request.path("method").asText(), url, 0, "no answer came"));
      open.add(id);
    }
  }

  private void answered(String id, int status, String failure) {
    calls.computeIfPresent(
        id, (same, call) -> new Seen.Call(call.method(), call.url(), status, failure));
  }

  private void ends(String id) {
    open.remove(id);
  }

  private void thrown(JsonNode details) {
    String text = details.path("exception").path("description").asText();
    String line =
        (text.isEmpty() ? details.path("text").asText() : text).lines().findFirst().orElse("");
    add(line, details.path("url").asText(), details.path("lineNumber").asInt());
  }

  private void printed(JsonNode told) {
    if (!told.path("type").asText().equals("error")) {
      return;
    }
    StringBuilder text = new StringBuilder();
    for (JsonNode argument : told.path("args")) {
      JsonNode value = argument.path("value");
      String shown = value.isMissingNode() ? argument.path("description").asText() : value.asText();
      text.append(text.isEmpty() ? "" : " ").append(shown);
    }
    JsonNode frame = told.path("stackTrace").path("callFrames").path(0);
    add(text.toString(), frame.path("url").asText(), frame.path("lineNumber").asInt());
  }

  /** Lines are counted from 0 there. */
  private void add(String text, String url, int line) {
    if (errors.size() < MOST_ERRORS) {
      errors.add(text + (url.isEmpty() ? "" : " at " + url + ":" + (line + 1)));
    }
  }

  /** Whether the page is loaded and nothing went on for so long. */
  synchronized boolean isQuiet(long nanos) {
    return loaded && open.isEmpty() && System.nanoTime() - changed > nanos;
  }

  synchronized Seen seen(String picture) {
    return new Seen(List.copyOf(calls.values()), List.copyOf(errors), picture);
  }
}

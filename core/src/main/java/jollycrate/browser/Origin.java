package jollycrate.browser;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The scheme, host and port of a page (RFC 6454): requests to any other are not made, and none of
 * them sees who is logged in. Other ports of the same machine are other servers.
 */
final class Origin {
  private final URI page;
  private final Map<String, String> headers;
  private volatile Wire wire;
  private volatile String session = "";

  Origin(Visit visit) {
    this.page = visit.url();
    this.headers = visit.headers();
  }

  /** Has the browser ask before each request of a page. */
  void guard(Wire browser, String ofPage) {
    session = ofPage;
    wire = browser;
    browser.send(ofPage, "Fetch.enable", Map.of("patterns", List.of(Map.of("urlPattern", "*"))));
  }

  void event(String method, JsonNode told) {
    if (!method.equals("Fetch.requestPaused")) {
      return;
    }
    String id = told.path("requestId").asText();
    JsonNode request = told.path("request");
    if (isOwn(request.path("url").asText())) {
      wire.post(
          session, "Fetch.continueRequest", Map.of("requestId", id, "headers", headers(request)));
    } else {
      wire.post(
          session, "Fetch.failRequest", Map.of("requestId", id, "errorReason", "BlockedByClient"));
    }
  }

  private boolean isOwn(String url) {
    if (!url.startsWith("http")) {
      return true;
    }
    try {
      URI asked = URI.create(url);
      return page.getScheme().equals(asked.getScheme())
          && page.getAuthority().equals(asked.getAuthority());
    } catch (IllegalArgumentException noAddress) {
      return false;
    }
  }

  private List<Map<String, String>> headers(JsonNode request) {
    Map<String, String> all = new HashMap<>();
    request
        .path("headers")
        .properties()
        .forEach(header -> all.put(header.getKey(), header.getValue().asText()));
    all.putAll(headers);
    List<Map<String, String>> told = new ArrayList<>();
    all.forEach((name, value) -> told.add(Map.of("name", name, "value", value)));
    return told;
  }
}

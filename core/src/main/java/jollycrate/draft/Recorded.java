package jollycrate.draft;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Statuses;

/**
 * Checks from what a browser asked for while somebody used the application, as its network tools
 * save it (HTTP Archive 1.2).
 *
 * @param base context path of the application, without a slash at its end
 */
record Recorded(String base) {
  private static final String PAGE = "text/html";

  List<Candidate> in(JsonNode archive, Path file) {
    List<Candidate> found = new ArrayList<>();
    JsonNode entries = archive.path("log").path("entries");
    String first = origin(entries.path(0).path("request").path("url").asText());
    for (int i = 0; i < entries.size(); i++) {
      JsonNode request = entries.get(i).path("request");
      JsonNode response = entries.get(i).path("response");
      String url = request.path("url").asText();
      boolean plain =
          request.path("method").asText().equals("GET")
              && origin(url).equals(first)
              && Statuses.SUCCESS.holds(response.path("status").asInt());
      String where = file.getFileName() + ", entry " + (i + 1);
      String type = response.path("content").path("mimeType").asText().replaceFirst(";.*", "");
      if (plain) {
        path(url).flatMap(path -> candidate(path, type, where)).ifPresent(found::add);
      }
    }
    return found;
  }

  /** What a page loads besides data is asked for with the page. */
  private static Optional<Candidate> candidate(String path, String type, String where) {
    if (type.equals(PAGE)) {
      return Optional.of(Candidate.page(path, where));
    }
    return type.contains("json") || type.equals("text/plain") || type.equals("text/csv")
        ? Optional.of(Candidate.get(path, List.of("type = " + DraftText.quoted(type)), where))
        : Optional.empty();
  }

  private static String origin(String url) {
    return url.replaceFirst("(?<=[^/:])/.*", "");
  }

  private Optional<String> path(String url) {
    try {
      URI read = new URI(url);
      String query = read.getRawQuery() == null ? "" : "?" + read.getRawQuery();
      String path = read.getRawPath() + query;
      return path.equals(base)
          ? Optional.of("/")
          : Optional.of(path)
              .filter(one -> one.startsWith(base + "/"))
              .map(one -> one.substring(base.length()));
    } catch (URISyntaxException noAddress) {
      return Optional.empty();
    }
  }
}

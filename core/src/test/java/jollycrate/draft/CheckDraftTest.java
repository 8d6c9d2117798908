package jollycrate.draft;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.ApplicationFile;
import jollycrate.app.NotDescribedException;
import jollycrate.secret.Reference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is known of paths becomes checks that are not there yet, and nothing else changes. */
class CheckDraftTest {
  private static final String BEFORE =
      """
      name = "a"
      artifact = "a.war"
      [app]
      path = "/spokes"
      [[check]]
      get = "/api/bikes"
      """;

  @TempDir Path folder;

  private Application read() {
    return ApplicationFile.read(file(), Optional.empty(), Reference::text);
  }

  private Path file() {
    return folder.resolve("jolly.toml");
  }

  private CheckDraft.Added add(Optional<Path> openApi, Optional<Path> har) {
    return new CheckDraft(file(), read(), Reference::text)
        .add(new CheckDraft.Sources(Optional.empty(), openApi, har), Optional.empty());
  }

  @Test
  void operationsThatOnlyReadAndHaveExamples() throws IOException {
    Files.writeString(file(), BEFORE);
    Path api =
        Files.writeString(
            folder.resolve("api.yaml"),
            """
            servers: [ { url: "https://shop.example/spokes/api/" } ]
            paths:
              /bikes: { get: { responses: { "200": {} } } }
              /bikes/{id}:
                parameters: [ { $ref: "#/components/parameters/Id" } ]
                get:
                  parameters: [ { name: of, in: query, required: true, schema: { default: "a b" } } ]
                  responses: { "2XX": { content: { text/csv: {} } } }
                delete: { responses: { "204": {} } }
              /parts/{id}: { get: { parameters: [ { name: id, in: path, required: true } ] } }
              /mine: { get: { security: [ { key: [] } ] } }
            components: { parameters: { Id: { name: id, in: path, required: true, example: 7 } } }
            """);
    assertThat(add(Optional.of(api), Optional.empty()).checks())
        .containsExactly(
            new Draft.Found("get", "/api/bikes/7?of=a%20b", "api.yaml, GET /bikes/{id}"));
    assertThat(Files.readString(file()))
        .isEqualTo(
            BEFORE
                + """

                # api.yaml, GET /bikes/{id}
                [[check]]
                name = "/api/bikes/7?of=a%20b answers"
                get = "/api/bikes/7?of=a%20b"
                status = "2xx"
                type = "text/csv"
                """);
    assertThat(add(Optional.of(api), Optional.empty()).checks()).isEmpty();
    assertThat(read().checks()).hasSize(2);
  }

  @Test
  void whatABrowserAskedForBelowTheContextPath() throws IOException {
    Files.writeString(file(), BEFORE);
    String entry =
        "{\"request\": {\"method\": \"%s\", \"url\": \"%s\"},"
            + " \"response\": {\"status\": 200, \"content\": {\"mimeType\": \"%s\"}}}";
    Path har =
        Files.writeString(
            folder.resolve("w.har"),
            "{\"log\": {\"entries\": ["
                + String.join(
                    ",",
                    entry.formatted("GET", "http://a:1/spokes", "text/html; charset=utf-8"),
                    entry.formatted("GET", "http://a:1/spokes/s.css", "text/css"),
                    entry.formatted("GET", "http://a:1/spokes/api/x?y=1", "application/json"),
                    entry.formatted("POST", "http://a:1/spokes/api/z", "application/json"),
                    entry.formatted("GET", "http://b:1/spokes/api/w", "application/json"),
                    entry.formatted("GET", "http://a:1/other/v", "application/json"))
                + "]}}");
    assertThat(add(Optional.empty(), Optional.of(har)).checks())
        .containsExactly(
            new Draft.Found("page", "/", "w.har, entry 1"),
            new Draft.Found("get", "/api/x?y=1", "w.har, entry 3"));
    assertThatThrownBy(() -> add(Optional.of(har), Optional.empty()))
        .isInstanceOf(NotDescribedException.class)
        .hasMessageEndingWith("there is no 'paths' in it");
  }
}

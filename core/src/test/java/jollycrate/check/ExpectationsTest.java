package jollycrate.check;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import jollycrate.app.Application;
import jollycrate.app.ApplicationFile;
import jollycrate.app.Expect;
import jollycrate.json.Json;
import jollycrate.secret.Reference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is written in a check is what is compared. */
class ExpectationsTest {
  private static final URI BASE = URI.create("http://bench:8080/spokes/");

  @TempDir Path folder;

  private Application read(String text) throws IOException {
    Path file =
        Files.writeString(
            folder.resolve("jolly.toml"), "name = \"a\"\nartifact = \"a.war\"\n" + text);
    return ApplicationFile.read(file, Optional.empty(), Reference::text);
  }

  private List<CheckResult.Miss> misses(String expected, int status, Map<String, String> head)
      throws IOException {
    Expect expect =
        read("[values]\ngears = 21\n[[check]]\nget = \"/\"\n" + expected.replace("\\n", "\n"))
            .checks()
            .get(0)
            .first()
            .expect();
    Map<String, String> headers = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
    headers.putAll(head);
    String body = "{\"bikes\": [{\"name\": \"Tandem\", \"gears\": 21}, null], \"none\": null}";
    Answer answer = Answer.came(status, headers, Answer.Body.of(body), Duration.ofMillis(3));
    return new Expectations(expect, BASE).misses(BASE.resolve("desk/"), answer);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      textBlock =
          """
          ``                                       | 204 |
          ``                                       | 302 | status
          status = 302                             | 302 |
          status = [200, "3xx"]                    | 302 |
          status = "400-404"                       | 403 |
          status = "400-404"                       | 405 | status
          status = "4xx"\\ntext = "Racer"           | 500 | status
          text = "Tandem"                          | 200 |
          text = "Racer"                           | 200 | text
          matches = "gears.*\\\\d+"                  | 200 |
          matches = "^Tandem"                      | 200 | matches
          json = { "/bikes/0/gears" = 21.0 }       | 200 |
          json = { "/bikes/0/gears" = "21" }       | 200 | /bikes/0/gears
          json = { "/bikes" = { count = 2 } }      | 200 |
          json = { "/bikes" = { count = 3 } }      | 200 | /bikes
          json = { "" = { count = 2 } }            | 200 |
          json = { "/none" = { exists = true } }   | 200 |
          json = { "/some" = { exists = false } }  | 200 |
          json = { "/some" = { exists = true } }   | 200 | /some
          json = { "/bikes/0/gears" = { least = 20, most = 21 } } | 200 |
          json = { "/bikes/0/gears" = { least = 21.5 } }          | 200 | /bikes/0/gears
          json = { "/bikes/0/name" = { least = 1 } }              | 200 | /bikes/0/name
          json = { "/bikes/0" = { name = "Tandem", gears = 21 } } | 200 |
          json = { "/bikes/0/gears" = "{gears}" }  | 200 |
          text = "{gears}}, null"                  | 200 |
          size = 64                                | 200 |
          size = { least = 65 }                    | 200 | size
          size = { most = 64 }                     | 200 |
          same-as = "jolly.toml"                   | 200 | body
          certificate-days = 3                     | 200 |
          within = "2ms"                           | 200 | time
          """)
  void isComparedAsItIsWritten(String expected, int status, String missed) throws IOException {
    assertThat(misses(expected, status, Map.of()))
        .extracting(CheckResult.Miss::what)
        .isEqualTo(missed == null ? List.of() : List.of(missed));
  }

  @Test
  void headersTypeAndTarget() throws IOException {
    Map<String, String> head =
        Map.of("Content-Type", "Text/HTML; charset=utf-8", "Location", "../login?next=desk");
    String right = "type = \"text/html\"\nleads-to = \"/login?next=desk\"";
    assertThat(misses(right, 303, head)).isEmpty();
    assertThat(misses("leads-to = \"http://bench:8080/spokes/login?next=desk\"", 302, head))
        .isEmpty();
    assertThat(misses("leads-to = \"/login\"", 302, head))
        .containsExactly(
            new CheckResult.Miss(
                "leads to",
                "http://bench:8080/spokes/login",
                "http://bench:8080/spokes/login?next=desk"));
    assertThat(misses("type = \"text/html; charset=UTF-8\"", 200, head)).isEmpty();
    assertThat(misses("type = \"text/html; charset=latin1\"", 200, head)).hasSize(1);
    assertThat(misses("headers = { location = \"/\", x = \"\" }\ntype = \"a/b\"", 200, head))
        .extracting(CheckResult.Miss::what)
        .containsExactly("location", "type");
  }

  /** What is kept of a delivery can be delivered again, with its checks. */
  @Test
  void isKeptAsItWasWritten() throws IOException {
    Application written =
        read(
            "[users]\nanna = { existing = \"env:A\" }\n[[check]]\npost = \"/\"\n"
                + "form = { a = \"b & ü\" }\nsend-headers = { Accept = \"*/*\" }\n"
                + "status = [\"2xx\", 404]\njson = { \"/a\" = { exists = true } }\n"
                + "[[check]]\npage = \"/\"\nas = \"anna\"\n[[access]]\npaths = [\"/\", \"/x\"]\n"
                + "allowed = \"anyone\"\ndenied = [\"anna\"]\n[logins]\nanna = { form = \"/\" }\n"
                + "[[check]]\nretry-for = \"2s\"\n[[check.request]]\npost = \"/\"\n"
                + "upload = { a = \"jolly.toml\" }\nremember = { b = \"header:c\" }\n"
                + "same-as = \"jolly.toml\"\nsize = { least = 1 }\ncertificate-days = 3\n"
                + "[[check.afterwards]]\ndelete = \"/{b}\"");
    assertThat(written.checks()).hasSize(7);
    assertThat(written.checks().get(0).first().ask().sent().orElseThrow().fields())
        .containsEntry("a", "b & ü");
    byte[] kept = Json.line(written).getBytes(StandardCharsets.UTF_8);
    assertThat(Json.read(kept, Application.class)).contains(written);
    JsonNode told = Json.told().readTree(kept);
    assertThat(told.at("/checks/0/requests/0/expect/status/0").asText()).isEqualTo("2xx");
  }
}

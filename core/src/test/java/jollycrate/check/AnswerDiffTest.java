package jollycrate.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Answers of two servers differ where something else is said, not where they stand. */
class AnswerDiffTest {
  private static final URI BENCH = URI.create("http://127.0.0.1:8080/spokes/");
  private static final URI SHOP = URI.create("https://shop.example/");

  private static List<String> diff(String type, String one, String other, String... varies) {
    return new AnswerDiff(List.of(varies)).between(came(type, one), BENCH, came(type, other), SHOP);
  }

  private static Answer came(String type, String text) {
    Map<String, String> head = Map.of("Content-Type", type);
    return Answer.came(200, head, Answer.Body.of(text), Duration.ZERO);
  }

  @Test
  void wherePagesStandIsNoDifference() {
    String page = "<img src=\"%s/bike.svg\">\n<a href=\"%s/\">%s</a>\n";
    String one = page.formatted("/spokes", "http://127.0.0.1:8080/spokes", "Tandem");
    assertThat(diff("text/html", one, page.formatted("", "https://shop.example", "Tandem")))
        .isEmpty();
    assertThat(diff("text/html", one, page.formatted("", "https://shop.example", "Racer")))
        .containsExactly(
            " <img src=\"/bike.svg\">", "-<a href=\"/\">Tandem</a>", "+<a href=\"/\">Racer</a>");
  }

  @Test
  void theOrderOfKeysIsNoDifferenceAndWhatVariesIsLeftOut() {
    String one = "{\"id\": 1, \"made\": \"10:02\", \"bike\": [{\"at\": 1}]}";
    String other = "{\"bike\": [{\"at\": 2}], \"id\": 1, \"made\": \"10:03\"}";
    assertThat(diff("application/json", one, one.replace(", ", " , "))).isEmpty();
    assertThat(diff("application/json", one, other, "/made", "/bike/0/at")).isEmpty();
    assertThat(diff("application/json", one, other, "\\d\\d:\\d\\d", "/bike/0")).isEmpty();
    assertThat(diff("application/json", one, other, "/bike"))
        .containsExactly(
            "   \"id\" : 1,", "-  \"made\" : \"10:02\"", "+  \"made\" : \"10:03\"", " }");
  }
}

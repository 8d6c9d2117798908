package jollycrate.app;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import jollycrate.json.Json;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Names in braces stand for what is known, and for nothing else. */
class ValuesTest {
  private static final Values KNOWN =
      Values.NONE
          .and("ticket", json("7"))
          .and("bike", json("\"Tandem & co\""))
          .and("where", json("\"/spokes/tickets/7?a=b\""))
          .and("parts", json("[1, {\"a\": null}]"));

  private static JsonNode json(String text) {
    return Json.read(text, JsonNode.class).orElseThrow();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          no. {ticket}            | no. 7
          {bike}, {bike}          | Tandem & co, Tandem & co
          {parts}                 | [1,{"a":null}]
          {unknown} {2} {} {Bike} | {unknown} {2} {} {Bike}
          $1 \\{ticket}           | $1 \\7
          """)
  void textsAreFilled(String text, String filled) {
    assertThat(KNOWN.in(text)).isEqualTo(filled);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          /tickets/{ticket}/     | /tickets/7/
          /bikes/{bike}?of={bike} | /bikes/Tandem%20%26%20co?of=Tandem%20%26%20co
          {where}                | /spokes/tickets/7?a=b
          {where}&c={bike}       | /spokes/tickets/7?a=b&c=Tandem%20%26%20co
          {unknown}/x            | {unknown}/x
          """)
  void pathsAreEncodedButWhereAnAnswerToldThemWhole(String path, String filled) {
    assertThat(KNOWN.inPath(path)).isEqualTo(filled);
  }

  @Test
  void aTextOfJsonThatIsANameBecomesTheValueAsItIs() {
    JsonNode filled =
        KNOWN.in(json("{\"id\": \"{ticket}\", \"all\": [\"{parts}\", \"no. {ticket}\", true]}"));
    assertThat(filled)
        .isEqualTo(json("{\"id\": 7, \"all\": [[1, {\"a\": null}], \"no. 7\", true]}"));
    assertThat(Values.names("/{a}/{b-2}/{C}")).containsExactly("a", "b-2");
  }
}

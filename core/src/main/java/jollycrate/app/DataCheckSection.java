package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import java.util.Optional;

/** Reads one {@code [[data]]}. */
final class DataCheckSection {
  private static final String SOURCE = "source";
  private static final String QUERY = "query";
  private static final String VALUE = "value";

  private final Section section;
  private final List<DataSource> sources;

  /**
   * @param sources those that are described
   */
  DataCheckSection(Section section, List<DataSource> sources) {
    this.section = section;
    this.sources = sources;
  }

  DataCheck read() {
    String source = DataSourceSection.named(section, SOURCE, sources).orElse("");
    String query = section.text(QUERY).orElse("").strip().replaceAll("\\s*[\\r\\n]\\s*", " ");
    if (query.isEmpty()) {
      section.missing(QUERY, "Say what is asked, like query = \"SELECT COUNT(*) FROM ticket\"");
    } else if (!query.matches("(?i)(select|with|values|table)\\b.*")) {
      section.problem(
          QUERY, "'" + query + "' does more than read", "Begin it with SELECT, WITH or VALUES");
    }
    Optional<JsonNode> value = section.value(VALUE).map(TomlJson::of);
    value
        .filter(asked -> asked.isContainerNode() && !Expect.asks(asked))
        .ifPresent(
            asked ->
                section.problem(
                    VALUE,
                    "'" + VALUE + "' is no value",
                    "Write it itself, or { least = 1, most = 9 }"));
    String name = section.text("name").orElse(query);
    section.end();
    return new DataCheck(name, source, query, value);
  }
}

package jollycrate.service;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.dataformat.toml.TomlMapper;
import com.fasterxml.jackson.dataformat.yaml.YAMLMapper;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.StringReader;
import java.util.Properties;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Settings reach a program unchanged in every format, and a broken file is told with its line. */
class SettingsTextTest {
  private static final String TRICKY = "yes: \"# räder\\t'${x}' <&>\\\\ 007";

  private static ObjectNode settings() throws IOException {
    ObjectNode settings = new ObjectMapper().createObjectNode();
    settings.put("text", TRICKY).put("digits", "007").put("word", "yes").put("count", 3);
    settings.withObject("/deep/er").put("flag", true);
    return settings;
  }

  @ParameterizedTest
  @CsvSource({"a.json", "a.yaml", "a.yml", "a.toml"})
  void valuesKeepTheirContentAndType(String name) throws IOException {
    ObjectMapper reader =
        name.endsWith("json")
            ? new ObjectMapper()
            : name.endsWith("toml") ? new TomlMapper() : new YAMLMapper();
    String text = new SettingsText(name).written(settings());
    assertThat(reader.readTree(text)).isEqualTo(settings());
  }

  @ParameterizedTest
  @CsvSource({"a.json", "a.yaml", "a.toml", "a.properties"})
  void aSecretIsKnownInTheFormThatTheFileGivesIt(String name) throws IOException {
    SettingsText format = new SettingsText(name);
    String text = format.written(settings());
    String shown = text;
    for (String written : format.written(TRICKY)) {
      assertThat(text).contains(written);
      shown = shown.replace(written, "");
    }
    assertThat(shown).doesNotContain("{x}").contains("count");
  }

  @Test
  void propertiesAreReadAsJavaReadsThem() throws IOException {
    Properties read = new Properties();
    String text = new SettingsText("a.properties").written(settings());
    read.load(new ByteArrayInputStream(text.getBytes("ISO-8859-1")));
    assertThat(read).containsEntry("text", TRICKY).containsEntry("deep.er.flag", "true");
    String more = new SettingsText("a.properties").with("a=1", "more", TRICKY).orElseThrow();
    read.load(new StringReader(more));
    assertThat(read).containsEntry("a", "1").containsEntry("more", TRICKY);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          a.json       | {"a": 1,\\n"b": }     | line 2
          a.yaml       | a: 1\\nb: [1\\nc: 2     | line
          a.yaml       | a: 1\\na: 2            | line 2
          a.toml       | a = 1\\nb =            | line
          a.properties | a=1\\nb=\\u12          | line 2
          a.json       | [1]                  | no keys
          """)
  void whatIsBrokenIsTold(String name, String text, String told) {
    assertThat(new SettingsText(name).fault(text.replace("\\n", "\n")))
        .hasValueSatisfying(fault -> assertThat(fault).contains(told));
  }
}

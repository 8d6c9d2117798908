package jollycrate.service;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Values reach a program as they are. */
class RunTextTest {
  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        " blanks around ",
        "-----BEGIN KEY-----\nabc\n-----END KEY-----\n",
        "lines\r\nof\r\nanother system\r\n",
        "\n",
        "  \n  indented\n\n",
        "a=b:c#d!e\\f\tg\fh ü ${user.name}"
      })
  void aVariableIsReadAsItWasWritten(String value) {
    RunText run = new RunText();
    run.variable("BELL", value, false);
    assertThat(RunText.read(run.text()).getProperty("env.BELL")).isEqualTo(value);
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "a\nb", "\\n", "a\r\n", " "})
  void soIsTheLastArgument(String argument) {
    RunText run = new RunText();
    run.command(List.of("java", argument));
    String written = RunText.read(run.text()).getProperty("command");
    assertThat(written.split("\n", -1))
        .containsExactly("java", argument.replace("\\", "\\\\").replace("\n", "\\n"));
  }
}

package jollycrate.cli.output;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Map;
import jollycrate.secret.Reference;
import jollycrate.secret.Secrets;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ScreenTest {
  @ParameterizedTest
  @ValueSource(booleans = {true, false})
  void aSecretInPiecesIsHiddenAndNothingSteersTheTerminal(boolean colour) {
    Secrets secrets = new Secrets(Map.of("BELL", "ding-dong-9")::get);
    secrets.resolve(Reference.of("env:BELL", Path.of("/")).orElseThrow());
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    Style style = new Style(colour, false, 80);
    new Screen(new PrintStream(out), new PrintStream(out), style, secrets)
        .line("it said ding-\u001b[Kdong-9\u001b]0;title\u0007");
    assertThat(out.toString(StandardCharsets.UTF_8)).isEqualTo("it said (hidden)\n");
  }
}

package jollycrate.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Setting;
import jollycrate.cli.output.Screen;
import jollycrate.cli.output.Style;
import jollycrate.json.Json;
import jollycrate.secret.Secrets;
import jollycrate.watch.Interrupts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What somebody types wrongly is answered with what to type. */
class JollyTest {
  @TempDir Path folder;
  private final ByteArrayOutputStream out = new ByteArrayOutputStream();
  private final ByteArrayOutputStream err = new ByteArrayOutputStream();

  private int run(String line) {
    Setting setting =
        new Setting(
            folder,
            Optional.empty(),
            folder.resolve("data"),
            Path.of(System.getProperty("java.home")),
            "anna",
            Optional.empty());
    Jolly jolly =
        new Jolly(new PrintStream(out), new PrintStream(err), setting, n -> null, new Interrupts());
    return jolly.run(line.isEmpty() ? new String[0] : line.split(" "));
  }

  private String errors() {
    return err.toString(StandardCharsets.UTF_8);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          ''                       | 2 | A command is missing
          deploi --to bench        | 2 | Did you mean 'deploy'?
          deploy                   | 2 | --to NAME is missing: the server, as servers.toml names it
          pack --build --no-build  | 2 | --build and --no-build exclude each other
          deploy --to a --path /x  | 2 | --path goes with FILE
          server                   | 2 | Say which: jolly server new, adopt, list, test, start, stop, restart, change, users, harden, remove, log
          inspect none.war         | 4 | there is no such file
          pack                     | 3 | Cannot find jolly.toml
          server list              | 3 | Cannot find servers.toml
          server adopt web         | 2 | add --name NAME
          server new a b           | 2 | does not take 'b'
          server new a/b           | 3 | it is no name
          server new bench         | 3 | Cannot find the practice server's archive
          check --on bench         | 3 | Cannot find servers.toml
          deploy --too bench       | 2 | does not take '--too'. Did you mean '--to'?
          deploy --to              | 2 | --to needs a value: NAME
          server new a --http x    | 2 | 'x' is no whole number, in --http
          server new a --kind service --admin 9 | 2 | Servers of a --kind have no admin listener
          server strat bench       | 2 | Did you mean 'start'?
          check --to bench         | 3 | Cannot find servers.toml
          demo                     | 3 | Cannot find the sample
          """)
  void aMistakeIsAnswered(String line, int exit, String message) {
    assertThat(run(line)).isEqualTo(exit);
    assertThat(errors()).startsWith("jolly: ").contains(message).doesNotContain("\tat ");
    assertThat(out.toString()).isEmpty();
  }

  @ParameterizedTest
  @CsvSource({
    "inspect",
    "compare",
    "pack",
    "deploy",
    "undeploy",
    "check",
    "deliveries",
    "recover",
    "demo",
    "server new",
    "server list",
    "server start",
    "server stop",
    "server restart",
    "server log",
    "run",
    "try-shapes"
  })
  void everyCommandHasHelp(String command) {
    assertThat(run(command + " --help")).isZero();
    assertThat(out.toString()).contains("jolly " + command, "It ends with", "--help");
  }

  @Test
  void everyMistakeOfAFileIsToldWithItsPlace() throws IOException {
    Files.writeString(folder.resolve("jolly.toml"), "nmae = 'x'\n[pack]\nclases = 'x'\n");
    assertThat(run("pack")).isEqualTo(3);
    assertThat(errors())
        .contains("jolly.toml:1:1: unknown key 'nmae'. Did you mean 'name'?")
        .contains("jolly.toml:3:1: unknown key 'clases' in [pack]. Did you mean 'classes'?");
  }

  @Test
  void machinesGetOneDocument() throws IOException {
    Files.createDirectories(folder.resolve("web"));
    Files.writeString(folder.resolve("web/index.html"), "x");
    Files.writeString(
        folder.resolve("jolly.toml"), "name = 'x'\nversion = '1'\n[pack]\nweb = 'web'\n");
    assertThat(run("pack --json")).isZero();
    JsonNode packed = Json.told().readTree(out.toByteArray());
    assertThat(packed.get("changed").asBoolean()).isTrue();
    out.reset();
    assertThat(run("inspect packed/x-1.war --json")).isZero();
    assertThat(Json.told().readTree(out.toByteArray()).get("digest"))
        .isEqualTo(packed.get("digest"));
  }

  @Test
  void aCommandThatFailsGivesADocumentToo() throws IOException {
    assertThat(run("server list --json")).isEqualTo(3);
    JsonNode failed = Json.told().readTree(out.toByteArray());
    assertThat(failed.get("exit").asInt()).isEqualTo(3);
    assertThat(failed.get("result").asText()).isEqualTo("WRONG_FILE");
    assertThat(failed.get("error").asText()).contains("Cannot find servers.toml");
    out.reset();
    assertThat(run("deploy --json --nowhere")).isEqualTo(2);
    assertThat(Json.told().readTree(out.toByteArray()).get("exit").asInt()).isEqualTo(2);
  }

  /** A document stays one when a secret looks like a number in it. */
  @Test
  void secretsAreMaskedInTextsOnly() throws IOException {
    PrintStream stream = new PrintStream(out, true);
    Secrets secrets = new Secrets(name -> null);
    secrets.hide("8080", "(hidden)");
    new Screen(stream, stream, Style.ofThisProcess(name -> null), secrets)
        .json(Map.of("http", 8080, "words", "port 8080 it is"));
    JsonNode document = Json.told().readTree(out.toByteArray());
    assertThat(document.get("http").asInt()).isEqualTo(8080);
    assertThat(document.get("words").asText()).isEqualTo("port (hidden) it is");
  }
}

package jollycrate.liberty;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.HostFiles;
import jollycrate.server.AdoptedKindContract;
import jollycrate.server.Piece;
import jollycrate.server.ServerKind;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** One whose configuration is as people left it. */
class AdoptedLibertyTest extends AdoptedKindContract {
  private static final String FILE = "server.xml";
  private static final String TEXT =
      """
      <server>
        <featureManager><feature>webProfile-10.0</feature></featureManager>
        <variable name="port" defaultValue="9080"/>
        <httpEndpoint id="defaultHttpEndpoint" httpPort="${port}" host="*"/>
      </server>
      """;

  @Override
  protected ServerKind kind() {
    return new LibertyKind();
  }

  @Override
  protected Path installation(Path instance) throws IOException {
    return LibertyKindTest.installationIn(folder);
  }

  @Override
  protected String instanceName() {
    return "servers/desk";
  }

  @Override
  protected List<Piece> pieces(HostFiles files, Access access) {
    Access open = access.with("rw-r--r--");
    return List.of(
        theirs(FILE, TEXT.replace("9080", "18091"), open),
        theirs("jvm.options", "# ours\n\n-Dbell=ding\n", open),
        theirs("server.env", "bell=dong\n", open));
  }

  @Test
  void itIsStartedWithWhatItsOwnScriptWouldAdd() {
    assertThat(command()).contains("-Dbell=ding").endsWith("desk");
    assertThat(environment())
        .containsEntry("bell", "dong")
        .containsEntry("WLP_USER_DIR", folder.toString());
  }

  @Test
  void itsPortIsWhatItsFilesSay() throws IOException {
    assertThat(contradictions(18_091)).isEmpty();
    assertThat(contradictions(9)).singleElement().asString().contains("has 18091", FILE + ":4");
    edit(FILE, "${port}", "${told.elsewhere}");
    assertThat(contradictions(9)).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "webProfile-10.0  | servlet-4.0                                      | jakarta.servlet",
        "<variable        | <logging consoleFormat=\"dev\"/><variable        | does not tell what",
        "<variable        | <logging consoleLogLevel=\"AUDIT\"/><variable    | does not tell what"
      })
  void whatCouldNotBeServedOrReadIsRefused(String from, String to, String message)
      throws IOException {
    edit(FILE, from, to);
    assertThat(contradictions(18_091)).singleElement().asString().contains(message);
  }

  @Test
  void usersGoIntoTheOneRegistryThatHasAName() {
    assertThat(registry("")).contains("jolly");
    assertThat(registry("<basicRegistry id=\"desk\"/>")).contains("desk");
    assertThat(registry("<basicRegistry/>")).isEmpty();
    assertThat(registry("<ldapRegistry id=\"x\"/>")).isEmpty();
  }

  private Optional<String> registry(String elements) {
    byte[] text = ("<server>" + elements + "</server>").getBytes();
    return new LibertyBase(server(), Map.of(server().folder().resolve(FILE), text)).registry();
  }
}

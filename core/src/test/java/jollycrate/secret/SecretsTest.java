package jollycrate.secret;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A value that was resolved once is never shown, however it is written. */
class SecretsTest {
  private static final String VALUE = "p&${user.name}<\"'ü";

  @TempDir Path folder;

  private static Secrets with(String value) {
    Secrets secrets = new Secrets(Map.of("PASSWORD", value)::get);
    secrets.resolve(Reference.of("env:PASSWORD", Path.of("/")).orElseThrow());
    return secrets;
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        VALUE,
        "p&amp;${user.name}&lt;&quot;&apos;&#252;",
        "p&${user.name}<\\\"'ü",
        "p\\u0026\\u0024\\u007buser\\u002ename\\u007d\\u003c\\u0022\\u0027\\u00fc",
        "p%26%24%7Buser.name%7D%3C%22%27%C3%BC"
      })
  void everyFormIsHidden(String form) {
    assertThat(with(VALUE).mask("a " + form + " b")).isEqualTo("a (hidden) b");
  }

  @Test
  void aShortOneIsHiddenOnlyWhereItStandsAsAValue() {
    assertThat(with("a").mask("a ticket, =\"a\", key=a, =a.b"))
        .isEqualTo("a ticket, =\"(hidden)\", key=(hidden), =a.b");
    assertThat(with("sa").mask("sa")).isEqualTo("(hidden)");
  }

  @Test
  void valuesAreHiddenByTheNameThatTheyStandUnder() {
    Secrets secrets = new Secrets(name -> null);
    HiddenValues.in(
        "context.xml",
        "<a><Set name=\"password\" type=\"String\">oil&amp;rag</Set><b password='tyre-1'/>"
            + "<property name=\"dbPassword\" value=\"tyre-2\"/><db-password>tyre-3</db-password>"
            + "<passwordFile>open.txt</passwordFile></a>",
        secrets);
    HiddenValues.in("start.ini", "jetty.keyStorePassword=tyre-4\nport=tyre", secrets);
    assertThat(secrets.mask("oil&rag oil&amp;rag tyre-1 tyre-2 tyre-3 tyre-4 tyre open.txt"))
        .isEqualTo("(hidden) (hidden) (hidden) (hidden) (hidden) (hidden) tyre open.txt");
  }

  @Test
  void aFileGivesItsFirstLine() throws IOException {
    Files.writeString(folder.resolve("pw"), "first\nsecond\n");
    Secrets secrets = new Secrets(name -> null);
    assertThat(secrets.resolve(Reference.of("file:pw", folder).orElseThrow())).isEqualTo("first");
    assertThat(Reference.of("plain", folder)).isEmpty();
  }

  @Test
  void whatCannotBeResolvedIsNamedWithoutItsValue() throws IOException {
    Secrets secrets = new Secrets(name -> "a\tb");
    assertThatThrownBy(() -> secrets.resolve(Reference.of("env:X", folder).orElseThrow()))
        .hasMessage("Cannot use 'env:X': it holds a control character");
    assertThatThrownBy(() -> secrets.resolve(Reference.of("file:no", folder).orElseThrow()))
        .hasMessageContaining("Cannot read 'file:no'");
  }

  @Test
  void aFileOfVariablesCountsOnlyWhileOthersCannotReadIt(@TempDir Path folder) throws IOException {
    Secrets secrets = new Secrets(name -> null);
    Path file = folder.resolve(VariablesFile.NAME);
    Reference reference = Reference.of("env:DB_PASSWORD", folder).orElseThrow();
    Files.writeString(file, "# mine\nDB_PASSWORD=\"wheel & spoke\"\n");
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-r-----"));
    assertThatThrownBy(() -> secrets.resolve(reference)).hasMessageContaining("chmod 600");
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
    assertThat(secrets.resolve(reference)).isEqualTo("wheel & spoke");
    Files.writeString(file, "OTHER=1\nexport DB_PASSWORD=hub\n");
    assertThatThrownBy(() -> secrets.resolve(reference))
        .hasMessageContaining("line 2 is not written NAME=value")
        .hasMessageNotContaining("hub");
    assertThat(secrets.mask("it is wheel & spoke")).isEqualTo("it is (hidden)");
  }
}

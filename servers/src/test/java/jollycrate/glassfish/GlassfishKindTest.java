package jollycrate.glassfish;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.hosting.HashedUsers;
import jollycrate.server.ServerKind;
import jollycrate.server.ServerKindContract;
import jollycrate.xml.XmlDocument;
import org.junit.jupiter.api.Test;

class GlassfishKindTest extends ServerKindContract {
  private static final String SHIPPED =
      """
      <domain>
        <resources>
          <jdbc-resource pool-name="__TimerPool" jndi-name="jdbc/__TimerPool"/>
          <jdbc-resource pool-name="DerbyPool" jndi-name="jdbc/__default"/>
          <jdbc-connection-pool name="__TimerPool"><property name="databaseName" value="x"/></jdbc-connection-pool>
          <jdbc-connection-pool name="DerbyPool"/>
        </resources>
        <servers><server name="server"><resource-ref ref="jdbc/__default"/></server></servers>
        <configs>
          <config name="server-config">
            <http-service>
              <virtual-server id="server" network-listeners="http-listener-1,http-listener-2"/>
              <virtual-server id="__asadmin" network-listeners="admin-listener"/>
            </http-service>
            <iiop-service><iiop-listener port="3700"/></iiop-service>
            <admin-service><jmx-connector port="8686" name="system"/></admin-service>
            <security-service>
              <auth-realm name="file"><property name="file" value="keyfile"/></auth-realm>
            </security-service>
            <network-listeners>
              <network-listener port="8080" name="http-listener-1"/>
              <network-listener port="8181" name="http-listener-2"/>
              <network-listener port="4848" name="admin-listener"/>
            </network-listeners>
          </config>
          <config name="default-config"><iiop-listener port="3701"/></config>
        </configs>
      </domain>
      """;

  @Override
  protected ServerKind kind() {
    return new GlassfishKind();
  }

  @Override
  protected Optional<Integer> admin() {
    return Optional.empty();
  }

  @Override
  protected Path installation(Path instance) throws IOException {
    Path home = Files.createDirectories(folder.resolve("glassfish7"));
    Path branding = Files.createDirectories(home.resolve("glassfish/config/branding"));
    Files.writeString(branding.resolve("glassfish-version.properties"), "product.version=7.0.21\n");
    Path domain = Files.createDirectories(home.resolve("glassfish/domains/domain1/config"));
    Files.writeString(domain.resolve("domain.xml"), SHIPPED);
    Files.write(folder.resolve("none.jar"), new byte[0]);
    return home;
  }

  @Override
  protected String handed() {
    return "";
  }

  @Test
  void ofTheConfigurationThatShipsOneListenerIsLeftAndNothingToLinkTo() {
    String text = new String(NewDomain.of(SHIPPED.getBytes(StandardCharsets.UTF_8)));
    assertThat(text)
        .doesNotContain("DerbyPool", "__default\"", "iiop-listener", "8181", "default-config")
        .doesNotContain("__asadmin")
        .contains("network-listeners=\"http-listener-1\"", "port=\"${jolly.port}\"")
        .contains("port=\"4848\" name=\"admin-listener\" enabled=\"false\"")
        .contains("name=\"system\" enabled=\"false\"");
    XmlDocument.parse("domain.xml", text);
  }

  @Test
  void oneWhoseRootWeDoNotPrepareIsRefused() throws IOException {
    assertThat(contradictions(18_091)).isEmpty();
    Files.delete(server().folder().resolve("configuration/domain.xml"));
    assertThat(contradictions(18_091)).singleElement().asString().contains("keeps copies");
  }

  @Test
  void aHashIsKnownByWhatItIsMadeOf() {
    GlassfishHash hashing = new GlassfishHash();
    String made = hashing.of("tandem");
    assertThat(hashing.isOne(made)).isTrue();
    assertThat(new GlassfishHash().matches(made, "tandem")).isTrue();
    assertThat(new GlassfishHash().matches(made, "other")).isFalse();
    assertThat(hashing.isOne("{SSHA256}AQ==")).isFalse();
    assertThat(hashing.matches("{SSHA}" + made.substring(9), "tandem")).isFalse();
  }

  @Test
  void usersComeAndGoAndOthersStay() {
    UserLines lines = new UserLines();
    String others = "jo;{SSHA256}x;mechanic\n";
    String line = UserLines.line(new HashedUsers.HashedUser("jo-2", "{h}", List.of("a", "b")));
    String both = lines.insert(others, "jo-2", line);
    assertThat(lines.find(both, "jo-2")).contains("jo-2;{h};a,b");
    assertThat(UserLines.hash(line)).contains("{h}");
    assertThat(UserLines.all(both, "users")).extracting("name").containsExactly("jo", "jo-2");
    assertThat(lines.remove(both, "jo-2")).isEqualTo(others);
    assertThat(lines.insert(both, "jo", "jo;{n};")).isEqualTo("jo;{n};\njo-2;{h};a,b\n");
  }
}

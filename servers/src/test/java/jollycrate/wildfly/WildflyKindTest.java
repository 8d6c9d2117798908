package jollycrate.wildfly;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import jollycrate.server.ServerKind;
import jollycrate.server.ServerKindContract;
import jollycrate.xml.XmlDocument;
import org.junit.jupiter.api.Test;

class WildflyKindTest extends ServerKindContract {
  private static final String SHIPPED =
      """
      <server>
        <extensions><extension module="org.wildfly.extension.metrics"/></extensions>
        <management>
          <management-interfaces><http-interface/></management-interfaces>
        </management>
        <profile>
          <subsystem xmlns="urn:jboss:domain:datasources:7.2">
            <datasources>
              <datasource jndi-name="java:jboss/datasources/ExampleDS"/>
              <drivers>
                <driver name="h2" module="com.h2database.h2"/>
              </drivers>
            </datasources>
          </subsystem>
          <subsystem xmlns="urn:wildfly:metrics:1.0"/>
          <subsystem xmlns="urn:jboss:domain:undertow:14.0">
            <server name="default-server">
              <http-listener name="default" redirect-socket="https"/>
              <https-listener name="https"/>
              <host name="default-host"/>
            </server>
          </subsystem>
          <security-realms>
            <properties-realm name="ApplicationRealm"/>
          </security-realms>
        </profile>
        <interfaces><interface name="public"/></interfaces>
        <socket-binding-group name="standard-sockets"><socket-binding name="http"/></socket-binding-group>
      </server>
      """;

  @Override
  protected ServerKind kind() {
    return new WildflyKind();
  }

  @Override
  protected Path installation(Path instance) throws IOException {
    return installationIn(folder);
  }

  static Path installationIn(Path folder) throws IOException {
    Path home = Files.createDirectories(folder.resolve("wildfly"));
    Path web =
        Files.createDirectories(
            home.resolve("modules/system/layers/base/org/wildfly/extension/undertow/main"));
    Files.createFile(web.resolve("wildfly-undertow-39.0.1.Final.jar"));
    Path configuration = Files.createDirectories(home.resolve("standalone/configuration"));
    Files.writeString(configuration.resolve("standalone.xml"), SHIPPED);
    Files.write(folder.resolve("none.jar"), new byte[0]);
    return home;
  }

  @Override
  protected String handed() {
    return "";
  }

  @Test
  void ofTheConfigurationThatShipsNothingIsLeftThatListensOrLetsIn() {
    String text = new String(NewConfiguration.of(SHIPPED.getBytes()));
    assertThat(text)
        .doesNotContain(
            "management-interfaces", "ExampleDS", "metrics", "https", "properties-realm")
        .contains("<filesystem-realm name=\"ApplicationRealm\"", "<server name=\"admin\"");
    XmlDocument.parse("standalone.xml", text);
  }

  @Test
  void aDriverAndAHostComeAndGoWithoutATrace() {
    String text = new String(NewConfiguration.of(SHIPPED.getBytes()));
    Configuration splicer = new Configuration();
    String driver = Configuration.driver("h2-1", "jolly.drivers.h2-1", "org.h2.Driver");
    String host = Configuration.host("bikes.example");
    String driven = splicer.insert(text, Configuration.driverKey("h2-1"), driver);
    String both = splicer.insert(driven, Configuration.hostKey("bikes.example"), host);
    assertThat(splicer.find(both, Configuration.driverKey("h2-1"))).contains(driver);
    assertThat(splicer.find(both, Configuration.hostKey("bikes.example"))).contains(host);
    assertThat(splicer.remove(both, Configuration.hostKey("bikes.example"))).isEqualTo(driven);
    assertThat(splicer.remove(driven, Configuration.driverKey("h2-1"))).isEqualTo(text);
  }
}

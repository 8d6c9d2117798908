package jollycrate.wildfly;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import jollycrate.host.Access;
import jollycrate.host.HostFiles;
import jollycrate.server.AdoptedKindContract;
import jollycrate.server.Piece;
import jollycrate.server.ServerKind;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** One whose configuration is as people left it. */
class AdoptedWildflyTest extends AdoptedKindContract {
  private static final String FILE = "configuration/standalone.xml";
  private static final String TEXT =
      """
      <server>
        <subsystem xmlns="urn:jboss:domain:deployment-scanner:2.0">
          <deployment-scanner path="deployments" relative-to="jboss.server.base.dir" scan-interval="5000"/>
        </subsystem>
        <subsystem xmlns="urn:jboss:domain:undertow:14.0">
          <server name="default-server">
            <http-listener name="default" socket-binding="http"/>
            <host name="default-host" alias="localhost, bikes.example"/>
          </server>
        </subsystem>
        <interfaces>
          <interface name="public"><inet-address value="${jboss.bind.address:127.0.0.1}"/></interface>
        </interfaces>
        <socket-binding-group name="standard" default-interface="public" port-offset="${offset:0}">
          <socket-binding name="http" port="${jboss.http.port:8080}"/>
        </socket-binding-group>
      </server>
      """;

  @Override
  protected ServerKind kind() {
    return new WildflyKind();
  }

  @Override
  protected Path installation(Path instance) throws IOException {
    return WildflyKindTest.installationIn(folder);
  }

  @Override
  protected List<Piece> pieces(HostFiles files, Access access) {
    return List.of(
        theirFolder("configuration", access.with("rwxr-xr-x")),
        theirFolder("deployments", access.with("rwxr-xr-x")),
        theirs(FILE, TEXT, access.with("rw-r--r--")));
  }

  @Test
  void itIsToldWhereToListenWhereItsConfigurationAsks() throws IOException {
    assertThat(contradictions(9090)).isEmpty();
    assertThat(command()).contains("-Djboss.http.port=9090", "-Djboss.bind.address=127.0.0.1");
    edit(FILE, "${offset:0}", "100");
    assertThat(contradictions(9090)).isEmpty();
    assertThat(command()).contains("-Djboss.http.port=8990");
    edit(FILE, "${jboss.http.port:8080}", "8080");
    assertThat(contradictions(9090)).singleElement().asString().contains("has 8180", FILE + ":15");
    assertThat(contradictions(8180)).isEmpty();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "<deployment-scanner path=\"deployments\" | <other path=\"deployments\"",
        "scan-interval=\"5000\"                   | scan-enabled=\"false\"",
        "scan-interval=\"5000\"                   | auto-deploy-zipped=\"false\"",
        "jboss.server.base.dir                    | jboss.server.data.dir"
      })
  void whereItDeploysNothingNothingIsDelivered(String from, String to) throws IOException {
    edit(FILE, from, to);
    assertThat(contradictions(8080)).singleElement().asString().contains("deploys no archives");
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      value = {
        "8080              | 8080",
        "${a.b:8080}       | 8080",
        "${jboss.port:1}   | 7",
        "${x, jboss.port}  | 7",
        "${x}              | ${x}"
      })
  void aValueIsWhatTheFirstPropertySays(String written, String value) {
    assertThat(new Expression(written).value(Map.of("jboss.port", "7"))).isEqualTo(value);
  }

  @Test
  void aDriverIsCalledByItsArchiveWhereItIsAloneInThat() throws IOException {
    try (ZipOutputStream jar =
        new ZipOutputStream(Files.newOutputStream(folder.resolve("none.jar")))) {
      jar.putNextEntry(new ZipEntry("META-INF/services/java.sql.Driver"));
      jar.write("bell.Driver\nbell.Other\n".getBytes());
    }
    assertThat(wanted("1").refused())
        .singleElement()
        .asString()
        .contains("announces just one", "none.jar");
  }

  @Test
  void whatItsProcessWasGivenIsGivenAgainButForSecrets() {
    GivenArguments given =
        new GivenArguments(
            List.of(
                "java",
                "-D[Standalone]",
                "-Xms64m",
                "-Xmx512m",
                "-Dlogging.configuration=file:x",
                "-jar",
                "jboss-modules.jar",
                "org.jboss.as.standalone",
                "-Djboss.home.dir=/opt",
                "-b",
                "0.0.0.0",
                "-Dbell=ding",
                "-Dbell.password=dong",
                "-c",
                "standalone-full.xml"));
    assertThat(given.memory()).contains("512m");
    assertThat(new GivenArguments(List.of("-Xmx1073741824")).memory()).contains("1048576k");
    assertThat(given.properties()).containsEntry("jboss.bind.address", "0.0.0.0");
    assertThat(given.further(List.of("jboss.bind.address")))
        .containsExactly("-Xms64m", "-Dbell=ding");
    assertThat(given.secret()).containsExactly("bell.password");
    assertThat(given.otherConfiguration()).contains("standalone-full.xml");
  }
}

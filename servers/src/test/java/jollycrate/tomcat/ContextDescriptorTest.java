package jollycrate.tomcat;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import jollycrate.app.Access;
import jollycrate.app.Application;
import jollycrate.app.Context;
import jollycrate.app.DataSource;
import jollycrate.app.Making;
import jollycrate.app.Program;
import jollycrate.server.Order;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlText;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** A descriptor carries what we describe and keeps what the artifact brought along. */
class ContextDescriptorTest {
  @ParameterizedTest
  @ValueSource(strings = {"ISO-8859-1", "UTF-16", "UTF-8"})
  void itIsWrittenInTheEncodingThatItDeclares(String encoding) throws IOException {
    String own =
        "<?xml version='1.0' encoding='" + encoding + "'?><Context><!-- Köln --></Context>";
    XmlText read = XmlDocument.parse("c", own.getBytes(encoding)).written();
    ContextDescriptor descriptor = new ContextDescriptor(Optional.of(read));
    descriptor.docBase(Path.of("/d/räder.war"));
    byte[] written = descriptor.text().bytes();
    XmlDocument again = XmlDocument.parse("c", written);
    assertThat(new String(written, encoding)).contains("<!-- Köln -->");
    assertThat(again.root().value("docBase", "")).isEqualTo("/d/räder.war");
  }

  @Test
  void whatTheArtifactBroughtStays() {
    String own =
        """
        <?xml version='1.0'?>
        <!-- theirs -->
        <Context docBase='old' path='/old' swallowOutput="true">
          <Resources><PreResources base="x"/></Resources>
          <Realm className="their.Realm"/>
          <Resource name="jdbc/a" url="old"/>
          <Resource name="jdbc/b" password="b-secret"/>
        </Context>
        """;
    ContextDescriptor descriptor = new ContextDescriptor(Optional.of(XmlText.of(own)));
    descriptor.docBase(Path.of("/d/a & b.war"));
    descriptor.libraries(Set.of(Path.of("/d/h2-1.jar")));
    descriptor.users("users.xml", Optional.of("<Realm className=\"servers.Realm\"/>"));
    descriptor.resource("jdbc/a", "<Resource name=\"jdbc/a\" url=\"new\"/>");
    String text = descriptor.text().text();
    assertThat(text)
        .startsWith(
            "<?xml version='1.0'?>\n<!-- theirs -->\n<Context docBase=\"/d/a &amp; b.war\" swallow");
    XmlElement context = XmlDocument.parse("c", text).root();
    assertThat(context.value("path", "none")).isEqualTo("none");
    assertThat(context.value("swallowOutput", "")).isEqualTo("true");
    assertThat(context.children("Resources")).hasSize(1);
    assertThat(context.descendants("PreResources")).hasSize(1);
    assertThat(context.descendants("PostResources").get(0).value("webAppMount", ""))
        .isEqualTo("/WEB-INF/lib/h2-1.jar");
    assertThat(context.children("Resource"))
        .extracting(resource -> resource.value("url", ""))
        .containsExactly("", "new");
    assertThat(context.children("Realm")).hasSize(1);
    assertThat(context.descendants("Realm"))
        .extracting(realm -> realm.value("className", "").replaceFirst(".*\\.realm\\.", ""))
        .containsExactly("CombinedRealm", "MemoryRealm", "their.Realm");
    assertThat(ContextDescriptor.secretsIn(text.getBytes(UTF_8))).containsOnlyKeys("b-secret");
  }

  @Test
  void anEmptyContextIsOpened() {
    ContextDescriptor descriptor = new ContextDescriptor(Optional.of(XmlText.of("<Context/>")));
    descriptor.docBase(Path.of("/d/a.war"));
    descriptor.resource("x", "<Resource name=\"x\"/>");
    assertThat(descriptor.text().text())
        .isEqualTo("<Context docBase=\"/d/a.war\">\n  <Resource name=\"x\"/>\n</Context>");
  }

  @ParameterizedTest
  @CsvSource({"plain", "'p&${user.name}<\"''ü'", "'a;b=c\\d #!: e'", "'${'"})
  void aPasswordReachesTheDriverUnchanged(String password) throws Exception {
    DataSource source =
        new DataSource(
            "jdbc/x",
            "jdbc:h2:mem:x",
            "anna",
            Optional.empty(),
            Path.of("h2.jar"),
            Optional.empty(),
            5,
            Duration.ofSeconds(1),
            List.of());
    String xml = DataSourceXml.of(source, "org.h2.Driver", password);
    XmlElement resource = XmlDocument.parse("r", xml).root();
    Optional<String> plain = resource.attribute("password").map(attribute -> attribute.value());
    Properties properties = new Properties();
    String written = resource.value("connectionProperties", "");
    properties.load(new java.io.StringReader(written.replace(';', '\n')));
    assertThat(plain.orElse(properties.getProperty("password"))).isEqualTo(password);
    assertThat(xml).doesNotContain("${");
  }

  @Test
  void aHashThatVerifiesIsKeptAndAnotherIsNew() {
    Application application =
        new Application(
            Optional.empty(),
            "shop",
            Optional.empty(),
            new Making(List.of(), Optional.empty(), Optional.empty(), Map.of(), Optional.empty()),
            new Context(Optional.empty(), Optional.empty(), Duration.ZERO, List.of()),
            List.of(),
            new Access(
                List.of(),
                Map.of("owner", List.of("anna", "bert"), "clerk", List.of("anna")),
                Map.of()),
            Program.PLAIN,
            List.of(),
            List.of());
    Order before =
        new Order(
            application,
            null,
            "",
            false,
            Map.of(),
            Map.of("anna", "a", "bert", "b"),
            Map.of(),
            Optional.empty());
    UsersXml first = UsersXml.of(before, "");
    assertThat(first.hidden().values()).containsOnly("(new hash)");
    assertThat(UsersXml.of(before, first.text()).text()).isEqualTo(first.text());
    Order after =
        new Order(
            application,
            null,
            "",
            false,
            Map.of(),
            Map.of("anna", "a", "bert", "c"),
            Map.of(),
            Optional.empty());
    UsersXml second = UsersXml.of(after, first.text());
    assertThat(new TreeSet<>(second.hidden().values())).containsExactly("(hash)", "(new hash)");
    assertThat(second.text().lines().filter(line -> line.contains("anna")).toList())
        .isEqualTo(first.text().lines().filter(line -> line.contains("anna")).toList());
  }

  @ParameterizedTest
  @CsvSource({"'', ROOT", "/shop, shop", "/api/v3, api#v3"})
  void aContextPathHasOneName(String path, String name) {
    assertThat(ContextNames.baseName(path)).isEqualTo(name);
    assertThat(ContextNames.pathOf(name)).isEqualTo(path);
    assertThat(ContextNames.pathOf(name + "##7")).isEqualTo(path);
  }
}

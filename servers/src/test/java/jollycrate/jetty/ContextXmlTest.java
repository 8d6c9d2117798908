package jollycrate.jetty;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.DataSource;
import jollycrate.xml.XmlDocument;
import org.junit.jupiter.api.Test;

/** The descriptor of an application on a Jetty. */
class ContextXmlTest {
  private static final String ODD = " a&<\"' ${x} ü ";

  private static ContextXml descriptor() {
    ContextXml xml = new ContextXml(Environment.PREFERRED.get(1));
    xml.application("", Path.of("/srv/bell.war"));
    return xml;
  }

  @Test
  void theRootAndItsEditionAreSaidAsJettyReadsThem() {
    assertThat(new String(descriptor().text(Path.of("/srv/spokes/bell"))))
        .contains("class=\"org.eclipse.jetty.ee10.webapp.WebAppContext\"")
        .contains("<Set name=\"contextPath\" type=\"String\">/</Set>")
        .contains("<Set name=\"tempDirectory\" type=\"String\">/srv/spokes/bell</Set>");
  }

  @Test
  void anotherDescriptorIsUnpackedElsewhere() {
    ContextXml other = descriptor();
    other.entry("bells", "java.lang.Integer", "2", false);
    assertThat(other.stamp()).isNotEqualTo(descriptor().stamp());
    assertThat(descriptor().stamp()).isEqualTo(descriptor().stamp());
  }

  @Test
  void whatPeopleMustNotSeeIsFoundWhateverItsType() {
    ContextXml xml = descriptor();
    xml.archives(Set.of(Path.of("/srv/h2.jar")));
    xml.dataSource(
        "bell",
        new DataSource(
            "jdbc/bell",
            "jdbc:h2:mem:bell",
            "sa",
            Optional.empty(),
            Path.of("/srv/h2.jar"),
            Optional.empty(),
            3,
            Duration.ofSeconds(1),
            List.of()),
        "org.h2.Driver",
        ODD);
    xml.entry("word", "java.lang.String", "tandem", true);
    xml.entry("pin", "java.lang.Integer", "4711", true);
    xml.entry("open", "java.lang.Integer", "9", false);
    byte[] text = xml.text(Path.of("/srv/spokes/bell"));
    assertThat(XmlDocument.parse("descriptor", text).root().descendants("Set"))
        .anyMatch(set -> set.value("name", "").equals("password"));
    assertThat(ContextXml.secretsIn(text)).containsOnlyKeys(ODD.strip(), "tandem", "4711");
    assertThat(ContextXml.secretsIn("<Configure".getBytes(StandardCharsets.UTF_8))).isEmpty();
  }
}

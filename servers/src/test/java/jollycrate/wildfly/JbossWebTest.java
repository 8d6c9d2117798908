package jollycrate.wildfly;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Optional;
import jollycrate.hosting.InnerDescriptor;
import org.junit.jupiter.api.Test;

class JbossWebTest {
  private static final String OWN =
      """
      <?xml version="1.0" encoding="UTF-8"?>
      <jboss-web xmlns="http://www.jboss.com/xml/ns/javaee">
        <context-root>/old</context-root>
        <!-- ours: sessions of the desk -->
        <max-active-sessions>20</max-active-sessions>
        <resource-ref><res-ref-name>jdbc/bikes</res-ref-name><jndi-name>java:/old</jndi-name></resource-ref>
        <resource-ref><res-ref-name>jdbc/parts</res-ref-name><jndi-name>java:/parts</jndi-name></resource-ref>
      </jboss-web>
      """;

  private static JbossWeb descriptor(Optional<byte[]> own) {
    return new JbossWeb(InnerDescriptor.of(JbossWeb.PATH, own, JbossWeb.EMPTY));
  }

  private static String text(JbossWeb descriptor) {
    return new String(descriptor.text().text(), StandardCharsets.UTF_8);
  }

  @Test
  void whatTheApplicationSaysForItselfStays() {
    JbossWeb descriptor = descriptor(Optional.of(OWN.getBytes(StandardCharsets.UTF_8)));
    descriptor.answersAt("/bell");
    descriptor.dataSource("jdbc/bikes", "java:jboss/datasources/bell/jdbc/bikes");
    assertThat(text(descriptor))
        .contains("<context-root>/bell</context-root>")
        .contains("<jndi-name>java:jboss/datasources/bell/jdbc/bikes</jndi-name>")
        .contains("<!-- ours: sessions of the desk -->", "java:/parts", "<max-active-sessions>20<")
        .doesNotContain("/old");
  }

  @Test
  void valuesArriveAsTheyAreWritten() {
    JbossWeb descriptor = descriptor(Optional.empty());
    descriptor.answersAt("");
    descriptor.entry("shop/name", "java.lang.String", " <a> $b ${user.name} ");
    assertThat(text(descriptor))
        .contains("<context-root>/</context-root>")
        .contains("> &lt;a&gt; $$$$b $$$${user.name} </env-entry-value>");
  }
}

package jollycrate.tomcat;

import static org.assertj.core.api.Assertions.assertThat;

import jollycrate.server.Cause;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WrongLinkTest {
  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '!',
      nullValues = "none",
      textBlock =
          """
          Auto-linking resource-ref 'java:comp/env/jdbc/a' in bean x.Comp1 to Resource(id=jdbc/b) | jdbc/b
          Auto-linking resource-ref 'java:app/jdbc/a' in bean x.Comp1 to Resource(id=jdbc/aa)    | jdbc/aa
          Auto-linking resource-ref 'java:app/jdbc/a' in bean x.Comp1 to Resource(id=jdbc/a)     | none
          Auto-linking resource-ref 'jdbc/a' in bean x.Comp1 to Resource(id=shop/jdbc/a)         | none
          Auto-linking resource-ref 'openejb/Resource/jdbc/a' in bean x to Resource(id=jdbc/b)  | none
          Adjusting PersistenceUnit desk <jta-data-source> to Resource ID 'Default' from 'jdbc/a' | Default
          Adjusting PersistenceUnit d <non-jta-data-source> to Resource ID 'Default' from 'null' | none
          Adjusting PersistenceUnit d <jta-data-source> to Resource ID 'shop/jdbc/a' from 'jdbc/a' | none
          Auto-creating a resource with id 'jdbc/a' of type 'javax.sql.DataSource for 'shop'.    | one of its own making
          Auto-creating a container for bean x.Comp1: Container(type=MANAGED, id=Default)        | none
          """)
  void anotherDataSourceThanTheOneAskedForIsNamed(String message, String given) {
    String log = "27-Nov-2026 08:08:57.301 INFO [main] org.apache.openejb.X.y " + message + "\n";
    assertThat(WrongLink.in(new TomcatFormat().records(log)).map(Cause::what).orElse("none"))
        .endsWith(given == null ? "none" : given);
  }
}

package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

@Order(1)
class GlassfishKindIT extends KindContract {
  GlassfishKindIT() {
    super(Line.GLASSFISH);
  }

  /** They ask nobody who he is where they answer on the main listener. */
  @Test
  void whatAdministersItAnswersNobody() throws IOException {
    workshop.ok("server", "start", "bench");
    for (String page :
        new String[] {
          "/management/domain", "/__asadmin/version", "/command/version", "/monitoring/", "/admin"
        }) {
      assertThat(workshop.page(page)).as(page).startsWith("404");
    }
  }
}

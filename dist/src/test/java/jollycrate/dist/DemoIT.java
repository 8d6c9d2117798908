package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The demo tells the truth. */
@Order(2)
class DemoIT {
  @TempDir Path folder;

  @Test
  void theDemoGoesAsTold() {
    Program.Run demo = new Program(folder).launched().run("demo", "--folder", "stage");
    assertThat(demo.exit()).as(demo.all()).isZero();
    assertThat(demo.out())
        .contains("Delivered spokes 1.4.0", "Delivered spokes 1.5.0", "Unchanged: spokes 1.5.0")
        .contains("Blocked: nothing was touched")
        .contains("spokes.TicketStore.list(TicketStore.java:")
        .contains("Taken back: bench is as it was before")
        .contains("is filtered on the way: an inbound rule of the host")
        .contains("to far in")
        .contains("No trace: all ")
        .contains(
            "go to: Tomcat 10.1, Tomcat 11.0, TomEE 9, Jetty 12.1, WildFly 39, Open Liberty 26, GlassFish 7.0.");
    assertThat(folder.resolve("stage")).doesNotExist();
  }
}

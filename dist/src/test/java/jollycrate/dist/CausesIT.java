package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A failure names what, where with the application's own line, why, and what to do. */
class CausesIT {
  @TempDir Path folder;

  @Test
  void aDatabaseThatIsDown() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      int nobody = Workshop.freePort();
      workshop.edit("jdbc:h2:file:./data/spokes", "jdbc:h2:tcp://127.0.0.1:" + nobody + "/spokes");
      assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
          .contains("jdbc/spokes: the database does not answer")
          .contains("fix   Start the database, or fix 'url'");
    }
  }

  @Test
  void aPortThatIsStolen() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      HttpServer thief =
          HttpServer.create(
              new InetSocketAddress(InetAddress.getLoopbackAddress(), workshop.http), 0);
      thief.start();
      long self = ProcessHandle.current().pid();
      try {
        assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
            .contains("port " + workshop.http + ": java")
            .contains("(process " + self + ") listens on the port that 'http' names");
        assertThat(workshop.ends(5, "server", "start", "bench").out())
            .contains("port " + workshop.http + " is taken by java")
            .contains("(process " + self + ")");
      } finally {
        thief.stop(0);
      }
    }
  }
}

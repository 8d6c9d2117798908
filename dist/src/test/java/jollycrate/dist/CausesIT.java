package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A failure names what, where with the application's own line, why, and what to do. */
class CausesIT {
  @TempDir Path folder;

  @Test
  void aListenerThatThrows() throws IOException {
    Path war =
        Wars.with(folder, Wars.listener("Start"))
            .source(
                "Start",
                Wars.listenerSource("Start", "throw new IllegalStateException(\"no tyres\");"))
            .write("shop.war");
    try (Workshop workshop = Workshop.open(folder)) {
      assertThat(workshop.ends(5, "deploy", war.toString(), "--undescribed", "--to", "bench").out())
          .contains("Failed: listener shop.Start threw IllegalStateException: no tyres")
          .contains("at    shop.Start.contextInitialized(Start.java:4)")
          .contains("told in logs/server.log:")
          .contains("Taken back: bench is as it was");
    }
  }

  @Test
  void aClassThatIsMissing() throws IOException {
    Path war =
        Wars.with(folder, Wars.listener("Start"))
            .source(
                "Start",
                Wars.listenerSource("Start", "new Pump();") + "class Pump {}\n",
                "Pump.class")
            .write("shop.war");
    try (Workshop workshop = Workshop.open(folder)) {
      assertThat(workshop.ends(5, "deploy", war.toString(), "--undescribed", "--to", "bench").out())
          .contains("Failed: class shop.Pump is missing")
          .contains("at    shop.Start.contextInitialized(Start.java:4)")
          .contains("fix   Add the library that holds it to WEB-INF/lib");
    }
  }

  @Test
  void aDescriptorThatIsBroken() throws IOException {
    Path broken =
        Wars.empty(folder)
            .entry("WEB-INF/web.xml", "<web-app>\n  <listener>\n</web-app>")
            .write("broken.war");
    Path unknown =
        Wars.with(
                folder,
                "<servlet-mapping><servlet-name>ghost</servlet-name>"
                    + "<url-pattern>/ghost</url-pattern></servlet-mapping>")
            .write("unknown.war");
    try (Workshop workshop = Workshop.open(folder)) {
      assertThat(
              workshop.ends(4, "deploy", broken.toString(), "--undescribed", "--to", "bench").out())
          .contains("broken.war: WEB-INF/web.xml:3:")
          .contains("Blocked: nothing was touched");
      assertThat(
              workshop
                  .ends(5, "deploy", unknown.toString(), "--undescribed", "--to", "bench")
                  .out())
          .contains("unknown servlet name [ghost]");
    }
  }

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

  @Test
  void anArtifactForAnotherServer() throws IOException {
    Path old =
        Wars.empty(folder)
            .source("Old", "public class Old { String api = \"javax/servlet/http/HttpServlet\"; }")
            .write("old.war");
    try (Workshop workshop = Workshop.open(folder)) {
      assertThat(workshop.ends(4, "deploy", old.toString(), "--undescribed", "--to", "bench").out())
          .contains("it is made for javax.servlet, and Tomcat 10.1")
          .contains("offers jakarta.servlet")
          .contains("seen  WEB-INF/classes/shop/Old.class");
      Path none = Files.writeString(folder.resolve("text.war"), "no archive");
      assertThat(
              workshop.ends(4, "deploy", none.toString(), "--undescribed", "--to", "bench").err())
          .contains("Cannot read '" + none + "' as an archive");
    }
  }
}

package jollycrate.dist;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Locale;

/** Small applications for a line of servers: the workshop's bell, well and unwell. */
record Bells(Path folder, Line line) {
  Path answering(String text) throws IOException {
    return Wars.empty(Files.createTempDirectory(folder, "bell"))
        .using(line.namespace)
        .source("Bell", annotated(text))
        .write("bell.war");
  }

  /** Up as its server says, and of no use. */
  Path throwing() throws IOException {
    String source =
        "@jakarta.servlet.annotation.WebServlet(\"\")\n"
            + Wars.servletSource("Bell", "throw new IllegalStateException(\"cracked\");");
    return Wars.empty(Files.createTempDirectory(folder, "bell"))
        .using(line.namespace)
        .source("Bell", source)
        .write("bell.war");
  }

  Path foreign() throws IOException {
    return Wars.empty(folder)
        .using(line.otherNamespace())
        .source("Bell", annotated("never"))
        .write("foreign.war");
  }

  /** A class of a release of Java that is not there. */
  Path newer() throws IOException {
    byte[] head = {(byte) 0xca, (byte) 0xfe, (byte) 0xba, (byte) 0xbe, 0, 0, 0, 69};
    return Wars.with(folder).entry("WEB-INF/classes/shop/Newer.class", head).write("newer.war");
  }

  private static String annotated(String text) {
    return "@jakarta.servlet.annotation.WebServlet(\"\")\n"
        + Wars.servletSource("Bell", "response.getWriter().print(\"" + text + "\");");
  }

  Path failing(String name, String statement) throws IOException {
    return listening(name.toLowerCase(Locale.ROOT), name, statement, "never");
  }

  Path listening(String war, String listener, String statement, String text) throws IOException {
    String source = Wars.listenerSource(listener, statement) + "class Pump {}\n";
    return Wars.with(Files.createTempDirectory(folder, war), Wars.listener(listener))
        .using(line.namespace)
        .source(listener, source, "Pump.class")
        .source("Bell", annotated(text))
        .write(war + ".war");
  }
}

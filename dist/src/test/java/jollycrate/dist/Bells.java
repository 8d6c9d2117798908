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

  /** A page for everybody, and one for those who log in. */
  Path guarded() throws IOException {
    return Wars.with(
            folder,
            "<security-constraint><web-resource-collection><web-resource-name>desk"
                + "</web-resource-name><url-pattern>/desk.html</url-pattern>"
                + "</web-resource-collection><auth-constraint><role-name>owner</role-name>"
                + "</auth-constraint></security-constraint><login-config><auth-method>BASIC"
                + "</auth-method><realm-name>Desk</realm-name></login-config>"
                + "<security-role><role-name>owner</role-name></security-role>")
        .entry("index.html", "<p>open</p>")
        .entry("desk.html", "<p>closed</p>")
        .write("bell.war");
  }

  /** Tells on which database two persistence units are, which name one data source in two ways. */
  void persisting(Path project, String source) throws IOException {
    String asks =
        """
        try {
          for (String unit : new String[] {"global", "own"}) {
            Object factory = new javax.naming.InitialContext().lookup("java:comp/env/" + unit);
            Object manager = call("EntityManagerFactory", factory, "createEntityManager");
            Object query =
                Class.forName("jakarta.persistence.EntityManager")
                    .getMethod("createNativeQuery", String.class)
                    .invoke(manager, "call database_path()");
            response.getWriter().print(unit + call("Query", query, "getResultList"));
          }
        } catch (Exception e) {
          throw new IllegalStateException(e);
        }
        }
        private static Object call(String type, Object on, String method) throws Exception {
          return Class.forName("jakarta.persistence." + type).getMethod(method).invoke(on);
        """;
    Path war =
        Wars.with(
                project,
                "<resource-ref><res-ref-name>%s</res-ref-name><res-type>javax.sql.DataSource</res-type></resource-ref>"
                    .formatted(source),
                reference("global"),
                reference("own"))
            .entry(
                "WEB-INF/classes/META-INF/persistence.xml",
                "<persistence xmlns=\"https://jakarta.ee/xml/ns/persistence\" version=\"3.0\">"
                    + unit("global", source)
                    + unit("own", "java:comp/env/" + source)
                    + "</persistence>")
            .source(
                "Units",
                "@jakarta.servlet.annotation.WebServlet(\"/units\")\n"
                    + Wars.servletSource("Units", asks))
            .write("bell.war");
    Files.writeString(
        project.resolve("jolly.toml"),
        """
        name = "bell"
        artifact = "%s"
        [datasource."%s"]
        url = "jdbc:h2:file:./data/bikes"
        driver = "../drivers/h2.jar"
        [[check]]
        get = "/units"
        """
            .formatted(war.getFileName(), source));
  }

  private static String reference(String unit) {
    return """
        <persistence-unit-ref><persistence-unit-ref-name>%1$s</persistence-unit-ref-name>
          <persistence-unit-name>%1$s</persistence-unit-name></persistence-unit-ref>"""
        .formatted(unit);
  }

  private static String unit(String name, String source) {
    return "<persistence-unit name=\"%s\"><jta-data-source>%s</jta-data-source></persistence-unit>"
        .formatted(name, source);
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

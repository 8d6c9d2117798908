package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.h2.tools.Server;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A password with every character that anything could stumble over. */
class ValuesIT {
  private static final String PASSWORD = "p&${user.name}<\"'ü";
  private static final List<String> FORMS =
      List.of(PASSWORD, "p&amp;${user.name}", "p\\u0026", "p&amp;$");

  @TempDir Path folder;

  @Test
  void reachesTheDatabaseUnchangedAndNobodyElse() throws IOException, SQLException {
    try (Workshop workshop = Workshop.withUsers(folder)) {
      workshop
          .program
          .with("SPOKES_DB_PASSWORD", PASSWORD)
          .with("ROBIN_PASSWORD", PASSWORD)
          .with("MIA_PASSWORD", PASSWORD);
      List<String> told = new ArrayList<>();
      told.add(workshop.ends(0, "deploy", "--to", "bench", "--dry-run").all());
      told.add(workshop.ends(0, "deploy", "--to", "bench").all());
      told.add(workshop.ends(0, "deploy", "--to", "bench", "--json").all());
      workshop.edit("1.4.0", "1.6.0");
      told.add(workshop.ends(5, "deploy", "--to", "bench").all());
      long server = workshop.processes().get(0);
      told.add(Files.readString(Path.of("/proc/" + server + "/environ")));
      told.add(Files.readString(Path.of("/proc/" + server + "/cmdline")));
      told.add(workshop.log());
      told.addAll(recordsAndOpenFiles(workshop.server));
      workshop.program.with("SPOKES_DB_PASSWORD", "another");
      told.add(workshop.ends(0, "undeploy", "spokes", "--from", "bench", "--dry-run").all());
      for (String text : told) {
        assertThat(text).doesNotContain(FORMS);
      }
      workshop.ok("server", "stop", "bench");
      String url = "jdbc:h2:file:" + workshop.server.resolve("data/spokes") + ";IFEXISTS=TRUE";
      try (Connection connection = DriverManager.getConnection(url, "spokes", PASSWORD)) {
        assertThat(connection.isValid(1)).isTrue();
      }
    }
  }

  /** By its driver, from where the server stands. */
  @Test
  void theDatabaseItselfIsAsked() throws IOException, SQLException {
    Server database =
        Server.createTcpServer("-tcpPort", "0", "-ifNotExists", "-baseDir", folder.toString());
    try (Workshop workshop = Workshop.open(folder)) {
      String url = "jdbc:h2:tcp://127.0.0.1:" + database.start().getPort() + "/./shared";
      workshop.edit("jdbc:h2:file:./data/spokes", url);
      workshop.edit("text = \"/data/spokes\"", "text = \"jdbc:h2:tcp\"");
      String data =
          "[[data]]\nname = \"all could be taken away\"\nvalue = 3\n"
              + "query = \"SELECT COUNT(*) FROM OLD TABLE (DELETE FROM ticket)\"\n"
              + "[[data]]\nname = \"tickets are there\"\nquery = \"SELECT COUNT(*) FROM ticket\"\nvalue = 3\n\n";
      workshop.edit("[for.solo.app]", data + "[for.solo.app]");
      assertThat(workshop.ok("deploy", "--to", "bench"))
          .containsPattern("pass +all could be taken away .*jdbc/spokes: 3")
          .containsPattern("pass +tickets are there .*jdbc/spokes: 3");
      workshop.edit("ticket\"\nvalue = 3", "ticket\"\nvalue = { least = 4 }");
      assertThat(workshop.ends(7, "check", "--on", "bench").out())
          .contains("the data source told 3 instead of {\"least\":4}");
      workshop.edit("FROM ticket\"\n", "FROM tickets\"\n");
      assertThat(workshop.ends(7, "check", "--on", "bench").out())
          .contains("the query is not accepted: Table \"TICKETS\" not found");
    } finally {
      database.stop();
    }
  }

  /** With the type that the artifact declares, else the one that the value has. */
  @Test
  void environmentEntriesAreLookedUpAsTheyWereWritten() throws IOException {
    String prints =
        """
        try {
          var env = (javax.naming.Context) new javax.naming.InitialContext().lookup("java:comp/env");
          for (String name : new String[] {"text", "bays", "open", "long", "letter"}) {
            Object value = env.lookup(name);
            response.getWriter().println(name + " " + value.getClass().getSimpleName() + " "
                + value.toString().codePoints().boxed().toList());
          }
          response.getWriter().println(env.lookup("mail/password").toString().length());
        } catch (javax.naming.NamingException e) {
          response.getWriter().println(e);
        }
        """;
    String declared = "<env-entry><env-entry-name>%s</env-entry-name>%s</env-entry>";
    Path war =
        Wars.with(
                folder,
                Wars.servlet("Prints", "/"),
                declared.formatted("long", "<env-entry-type>java.lang.Long</env-entry-type>"),
                declared.formatted(
                    "letter", "<env-entry-type>java.lang.Character</env-entry-type>"),
                declared.formatted(
                    "bays",
                    "<env-entry-type>java.lang.Integer</env-entry-type>"
                        + "<env-entry-value>1</env-entry-value>"),
                declared.formatted("lost", "<env-entry-type>java.lang.String</env-entry-type>"))
            .source("Prints", Wars.servletSource("Prints", prints))
            .write("prints.war");
    try (Workshop workshop = Workshop.open(folder)) {
      Path file = workshop.folder.resolve("jolly.toml");
      String text = "a<&\"'> ü \\u0041";
      String head = "name = \"prints\"\nartifact = \"%s\"\n[env-entry]\n".formatted(war);
      String values =
          "text = \"a<&\\\"'> ü \\\\u0041\"\nbays = 4\nopen = true\nlong = 7\nletter = \"x\"\n";
      Files.writeString(file, head + values.replace("= 7", "= 7.5"));
      assertThat(workshop.ends(4, "deploy", "--to", "bench").out())
          .contains("blocker long: '7.5' is no java.lang.Long", "WEB-INF/web.xml:")
          .contains("warn    lost: this environment entry has no value");
      Files.writeString(file, head + values + "\"mail/password\" = \"env:SPOKES_DB_PASSWORD\"\n");
      workshop.edit(
          workshop.folder.resolve("servers.toml"),
          "[server.bench]",
          "[for.bench.prints.env-entry]\nbays = 5\n\n[server.bench]");
      workshop.program.with("SPOKES_DB_PASSWORD", PASSWORD.replace("${", "{"));
      String told = workshop.ends(0, "deploy", "--to", "bench", "--diff").all();
      assertThat(told).contains("<Environment name=\"bays\"").doesNotContain("user.name");
      assertThat(workshop.page("/prints/"))
          .contains("text String " + text.codePoints().boxed().toList())
          .contains("bays Integer [53]", "open Boolean", "long Long [55]", "letter Character [120]")
          .contains("\n" + (PASSWORD.length() - 1));
      assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");
      assertThat(workshop.ok("settings", "--on", "bench"))
          .containsPattern("env-entry.bays +5 +servers.toml:\\d+, over jolly.toml:5")
          .containsPattern("env-entry.\"mail/password\" +\"env:SPOKES_DB_PASSWORD\" ")
          .containsPattern("app.path +\"/prints\" +usual");
      workshop.program.with("SPOKES_DB_PASSWORD", "another");
      String undeploy = workshop.ends(0, "undeploy", "--from", "bench", "--diff").all();
      assertThat(undeploy).contains("-  <Environment").doesNotContain("user.name");
    }
  }

  /** Texts of our records, and of every file that others than its owner may read. */
  private static List<String> recordsAndOpenFiles(Path server) throws IOException {
    List<String> texts = new ArrayList<>();
    try (Stream<Path> files = Files.walk(server)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        boolean open = Files.getPosixFilePermissions(file).contains(PosixFilePermission.GROUP_READ);
        if (open || file.startsWith(server.resolve(".jolly"))) {
          texts.add(new String(Files.readAllBytes(file), StandardCharsets.UTF_8));
        }
      }
    }
    return texts;
  }
}

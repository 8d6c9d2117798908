package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A server itself is changed as an application is delivered: all or nothing, and nothing else. */
@Order(2)
class ServerChangeIT {
  private static final String HANDLER = "<CredentialHandler [^>]*/>";
  private static final String USERS =
      """
      <user   name='mia'	password="chain &amp; 'ring'"  roles="manager-gui, staff" />
        <user username="sam" password="sam" roles="manager-gui"/>
      </tomcat-users>""";

  @TempDir Path folder;

  private static OwnTomcat withUsers(OwnTomcat own) throws IOException {
    Path users = own.folder.resolve("conf/tomcat-users.xml");
    Files.writeString(users, Files.readString(users).replace("</tomcat-users>", USERS));
    return own;
  }

  private static String latin(Path file) throws IOException {
    return Files.readString(file, StandardCharsets.ISO_8859_1);
  }

  private Program adopted(OwnTomcat own) throws IOException {
    Program program =
        new Program(Files.createDirectories(folder.resolve("desk")))
            .with("ROBIN", "tandem & 'bell'")
            .with("WEAK", "tomcat");
    program.ends(0, "server", "adopt", own.folder.toString(), "--name", "shop");
    return program;
  }

  @Test
  void hardenedWhileItRunsAndNothingElseDiffers() throws IOException {
    Path etc = folder.toRealPath().resolve("etc");
    try (OwnTomcat own = withUsers(new OwnTomcat(Line.ELEVEN, folder)).odd()) {
      own.linked(etc, folder.toRealPath().resolve("log")).start();
      Program program = adopted(own);
      Path users = etc.resolve("tomcat-users.xml");
      Path server = etc.resolve("server.xml");
      String page = "http://127.0.0.1:" + own.http + "/manager/html";
      String usersBefore = Files.readString(users);
      String serverBefore = latin(server);
      Trace before = own.trace(etc);
      assertThat(Pages.status(page, "mia", "chain & 'ring'")).isEqualTo(200);
      assertThat(Pages.status(page, "sam", "sam")).isEqualTo(200);

      assertThat(program.ends(0, "server", "harden", "shop", "--dry-run").all())
          .contains("+<Server port=", "shutdown=\"(new word)\"", "password=\"(new hash)\"")
          .doesNotContain("chain");
      own.trace(etc).isAs(before);
      List<Long> process = own.processes();
      assertThat(program.ends(0, "server", "harden", "shop").all())
          .containsPattern("note +user mia: the password stands there in plain text")
          .containsPattern("note +user sam: the password is one that everybody")
          .contains("its restart interrupts what runs there")
          .contains("Changed shop")
          .doesNotContain("chain");

      assertThat(own.processes()).hasSize(1).isNotEqualTo(process);
      assertThat(Pages.status(page, "mia", "chain & 'ring'")).isEqualTo(200);
      assertThat(Pages.status(page, "sam", "sam")).isEqualTo(401);
      assertThat(Files.isSymbolicLink(own.folder.resolve("conf"))).isTrue();
      assertThat(
              latin(server)
                  .replaceAll("shutdown=\"\\w{48}\"", "shutdown=\"SHUTDOWN\"")
                  .replaceAll(">\r\n *" + HANDLER + "\r\n *</Realm>", "/>"))
          .isEqualTo(serverBefore);
      assertThat(Files.readString(users).replaceAll("[0-9a-f]+\\$210000\\$[0-9a-f]+", "?"))
          .isEqualTo(
              usersBefore
                  .replace("chain &amp; 'ring'", "?")
                  .replace("password=\"sam\"", "password=\"?\""));
      Trace after = own.trace(etc);
      List<Long> standing = own.processes();
      assertThat(program.ends(0, "server", "harden", "shop").out()).contains("Unchanged");
      own.trace(etc).isAs(after);
      assertThat(own.processes()).isEqualTo(standing);

      users(program, own, page, users);
      movedPages(program, own);
    }
  }

  /** The public port does not answer for them any more; what stands beside them there does. */
  private static void movedPages(Program program, OwnTomcat own) throws IOException {
    assertThat(program.ends(4, "server", "harden", "shop", "--move-pages").out())
        .contains("there is no admin listener", "server change shop admin=PORT");
    int admin = Workshop.freePort();
    program.ends(0, "server", "change", "shop", "admin=" + admin);
    assertThat(program.ends(0, "server", "harden", "shop", "--move-pages").out())
        .contains("conf/admin/localhost/host-manager.xml", "conf/admin/localhost/manager.xml");
    String open = "http://127.0.0.1:" + own.http;
    String kept = "http://127.0.0.1:" + admin + "/manager/html";
    assertThat(Pages.get(open + "/manager/html")).startsWith("404");
    assertThat(Pages.get(open + "/docs/")).startsWith("200");
    assertThat(Pages.status(kept, "mia", "chain & 'ring'")).isEqualTo(200);
    assertThat(program.ends(0, "apps", "--on", "shop").out())
        .containsOnlyOnce("/manager ")
        .containsPattern("/manager +STARTED .*admin port");
    assertThat(program.ends(0, "server", "harden", "shop", "--move-pages").out())
        .contains("Unchanged");
  }

  /** Picked up while it runs, each. */
  private static void users(Program program, OwnTomcat own, String page, Path users)
      throws IOException {
    String before = Files.readString(users);
    List<Long> process = own.processes();
    String[] add = {
      "server", "users", "shop", "add", "robin", "--roles", "manager-gui", "--password", "env:ROBIN"
    };
    assertThat(program.ends(0, add).all())
        .contains("user robin: is added; roles: manager-gui", "Changed shop")
        .doesNotContain("tandem");
    assertThat(Pages.status(page, "robin", "tandem & 'bell'")).isEqualTo(200);
    assertThat(program.ends(0, add).out()).contains("Unchanged");
    program.ends(0, "server", "users", "shop", "roles", "robin", "--roles", "staff");
    assertThat(Pages.status(page, "robin", "tandem & 'bell'")).isEqualTo(403);
    assertThat(program.ends(0, "server", "users", "shop").out())
        .containsPattern("robin +staff +salted hash +conf/tomcat-users.xml:\\d+");
    program.ends(0, "server", "users", "shop", "remove", "robin");
    assertThat(Pages.status(page, "robin", "tandem & 'bell'")).isEqualTo(401);
    assertThat(Files.readString(users)).isEqualTo(before);
    assertThat(own.processes()).isEqualTo(process);

    assertThat(program.ends(4, "server", "users", "shop", "remove", "robn").out())
        .contains("it knows no user 'robn'");
    assertThat(
            program
                .ends(4, "server", "users", "shop", "password", "mia", "--password", "env:WEAK")
                .out())
        .contains("everybody tries first");
    assertThat(
            program
                .ends(2, "server", "users", "shop", "password", "mia", "--password", "bell")
                .err())
        .contains("write env:NAME or file:PATH");
    assertThat(Files.readString(users)).isEqualTo(before);
  }

  /** Where no Realm is, nobody could log in to them any more. */
  @Test
  void pagesStayWhereTheAdminListenerKnowsNobody() throws IOException {
    int admin = Workshop.freePort();
    String service =
        "<Service name='back'><Connector port='%d' address='127.0.0.1'/>".formatted(admin)
            + "<Engine name='back' defaultHost='localhost'><Host name='localhost'/></Engine>"
            + "</Service>\n</Server>";
    OwnTomcat own =
        new OwnTomcat(Line.TEN, folder).server(text -> text.replace("</Server>", service));
    Program program = adopted(own);
    Path servers = program.folder().resolve("servers.toml");
    Files.writeString(servers, Files.readString(servers) + "admin = " + admin + "\n");
    assertThat(program.ends(4, "server", "harden", "shop", "--move-pages", "--dry-run").out())
        .contains("nobody could log in to them there", "Realm");
  }

  /** Whoever logs in by that would be shut out, so passwords are left to people. */
  @Test
  void passwordsThatAnApplicationComparesItselfAreLeft() throws IOException {
    try (OwnTomcat own = withUsers(new OwnTomcat(Line.TEN, folder))) {
      Path context = own.folder.resolve("webapps/desk/META-INF/context.xml");
      Files.createDirectories(context.getParent());
      Files.writeString(
          context,
          "<Context><Realm className='org.apache.catalina.realm.UserDatabaseRealm'/></Context>");
      assertThat(adopted(own).ends(0, "server", "harden", "shop", "--dry-run").out())
          .containsPattern(
              "warn +webapps/desk/META-INF/context.xml:1: this application's own Realm")
          .contains("the usual word stops the server")
          .doesNotContain("user mia");
    }
  }

  @Test
  void portsMoveThereAndBackAndAnAdminListenerComesAndGoes() throws IOException {
    try (OwnTomcat own = new OwnTomcat(Line.NINE, folder).start()) {
      Program program = adopted(own);
      Path servers = program.folder().resolve("servers.toml");
      String described = Files.readString(servers);
      Trace before = own.trace();
      int http = Workshop.freePort();
      int admin = Workshop.freePort();
      int https = Workshop.freePort();
      assertThat(
              program
                  .ends(
                      0,
                      "server",
                      "change",
                      "shop",
                      "http=" + http,
                      "https=" + https,
                      "admin=" + admin)
                  .out())
          .contains("shop listens on " + http + ", " + https + ", " + admin)
          .contains("change      " + servers)
          .containsPattern("seen +sha256:[0-9a-f]{64}");
      assertThat(Pages.get("http://127.0.0.1:" + http + "/")).startsWith("200");
      assertThat(Pages.get("http://127.0.0.1:" + admin + "/")).startsWith("404");
      assertThat(Files.readString(servers))
          .isEqualTo(
              described.replace("http = " + own.http, "http = " + http)
                  + "https = %d\nadmin = %d\ncertificate = \"%s\"\n"
                      .formatted(https, admin, certificate(program)));
      Path war =
          Wars.with(folder, Wars.listener("Bell"))
              .using("javax")
              .source("Bell", Wars.listenerSource("Bell", ""))
              .write("bell.war");
      assertThat(
              program
                  .ends(
                      0,
                      "deploy",
                      war.toString(),
                      "--undescribed",
                      "--on-admin-port",
                      "--to",
                      "shop")
                  .out())
          .contains("http://127.0.0.1:" + admin + "/bell")
          .contains("the public port does not answer for it");
      assertThat(Pages.get("http://127.0.0.1:" + http + "/bell/")).startsWith("404");
      program.ends(0, "undeploy", "bell", "--from", "shop");
      Path file = own.folder.resolve("conf/server.xml");
      String usual = Files.readString(file).replaceAll("(?s).*<Server port=\"(\\d+)\".*", "$1");
      assertThat(program.ends(0, "server", "change", "shop", "stop-port=0").out())
          .contains("stop port: " + usual + " becomes none");
      assertThat(Files.readString(file)).contains("<Server port=\"-1\"");
      program.ends(
          0,
          "server",
          "change",
          "shop",
          "http=" + own.http,
          "https=",
          "admin=",
          "stop-port=" + usual);
      program.ends(0, "server", "change", "shop", "stop-port=");
      assertThat(Pages.get("http://127.0.0.1:" + own.http + "/")).startsWith("200");
      program.ends(0, "server", "stop", "shop");
      Files.deleteIfExists(own.folder.resolve("conf/admin/localhost"));
      Files.deleteIfExists(own.folder.resolve("conf/admin"));
      Files.deleteIfExists(own.folder.resolve("webapps-admin"));
      own.trace().isAs(before);
      assertThat(Files.readString(servers)).isEqualTo(described);
    }
  }

  private static String certificate(Program program) {
    String told = program.ends(0, "server", "test", "shop").out();
    return told.replaceAll("(?s).*certificate +(sha256:\\w+), for \\d+ days.*", "$1");
  }

  private static void keystore(Program program) {
    String made =
        "keytool -genkeypair -alias desk -keyalg EC -dname CN=desk -storetype PKCS12"
            + " -keystore desk.p12 -storepass \"$0\"";
    assertThat(program.shell("rm -f desk.p12; " + made, "tandem-7").exit()).isZero();
  }

  /** A renewed one is put there in place of the one before, and nothing of them stays. */
  @Test
  void aKeystoreOfTheTeamIsShownRenewedAndTakenAway() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Program program = workshop.program.with("STORE", "tandem-7").with("OTHER", "tandem-8");
      Trace before = workshop.trace();
      String described = Files.readString(program.folder().resolve("servers.toml"));
      keystore(program);
      String https = "https=" + Workshop.freePort();
      String store = "keystore=desk.p12";
      String[] change = {"server", "change", "bench", https, store, "keystore-password=env:OTHER"};
      assertThat(program.ends(3, change).err()).contains("or its password is another one");
      workshop.trace().isAs(before);
      change[5] = "keystore-password=env:STORE";
      program.ends(0, "server", "start", "bench");
      assertThat(program.ends(0, change).all())
          .contains("certificate CN=desk, signed by itself", "the certificate at https://")
          .doesNotContain("tandem-7");
      assertThat(program.ends(0, change).out()).contains("Unchanged");
      keystore(program);
      assertThat(program.ends(0, "server", "change", "bench").out())
          .containsPattern("remove +conf/https-\\w+\\.p12");
      assertThat(program.ends(0, "server", "test", "bench").out())
          .containsPattern("ok +certificate +sha256:");
      program.ends(0, "server", "change", "bench", "https=");
      workshop.trace().isAs(before);
      assertThat(Files.readString(program.folder().resolve("servers.toml"))).isEqualTo(described);
    }
  }

  /** What it is started with then is wrong, which nobody can foresee. */
  @Test
  void aChangeThatFailsIsTakenBackOnTheServerAndInItsDescription() throws IOException {
    try (Workshop workshop = Workshop.open(folder)) {
      Program program = workshop.program;
      program.ends(0, "deploy", "--to", "bench");
      Path servers = program.folder().resolve("servers.toml");
      String described = Files.readString(servers);
      assertThat(
              program.ends(5, "server", "change", "bench", "java-options=[\"-XX:Nonsense\"]").out())
          .contains("Unrecognized VM option 'Nonsense'", "Taken back: bench is as it was");
      assertThat(Files.readString(servers)).isEqualTo(described);
      program.ends(0, "check", "--on", "bench");
      int http = Workshop.freePort();
      assertThat(program.ends(0, "server", "change", "bench", "http=" + http, "memory=200m").out())
          .containsPattern("pass +open tickets are listed +200 .*:" + http + "/")
          .contains("with spokes on it");
      assertThat(program.ends(0, "deploy", "--to", "bench").out()).contains("Unchanged");
      program.ends(0, "server", "stop", "bench");
      assertThat(program.ends(0, "server", "change", "bench", "memory=").out())
          .contains("Changed, unproven");
      assertThat(Files.readString(servers)).doesNotContain("memory").contains("http = " + http);
      assertThat(program.ends(3, "server", "change", "bench", "memory=lots").err())
          .contains("nothing was written", "'lots' is no size");
      assertThat(program.ends(3, "server", "change", "bench", "folder=elsewhere").err())
          .contains("it would be another server");
    }
  }
}

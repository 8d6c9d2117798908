package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import org.junit.jupiter.api.io.TempDir;

/**
 * What holds on one kind of server holds on each, by the same words; one server for all of it. The
 * scenarios of a kind are run one after another, those of two kinds beside each other.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
abstract class KindContract {
  /** Every character that XML, properties or a server itself reads in another way. */
  private static final String PASSWORD = "a&<\"' x\\ ü;,";

  private static final String[] BELL = {"undeploy", "bell", "--from", "bench"};

  private final Line line;
  Workshop workshop;
  private Bells bells;

  @TempDir Path folder;

  KindContract(Line line) {
    this.line = line;
  }

  @BeforeAll
  void open(@TempDir Path servers) throws IOException {
    assumeTrue(Files.isRegularFile(line.archive()), "fetched with -Dkinds=all");
    workshop = line.open(servers);
    workshop.program.with("SPOKES_DB_PASSWORD", (line.keepsBlanks() ? " " : "") + PASSWORD);
  }

  @AfterAll
  void close() {
    if (workshop != null) {
      workshop.close();
    }
  }

  @BeforeEach
  void bells() {
    bells = new Bells(folder, line);
  }

  /** Nothing stands there for the next test. */
  @AfterEach
  void clear() throws IOException {
    Path standing = workshop.server.resolve(".jolly/standing.json");
    String told = Files.exists(standing) ? Files.readString(standing) : "";
    for (String application : List.of("spokes", "bell")) {
      if (told.contains("\"" + application + "\"")) {
        workshop.program.run("undeploy", application, "--from", "bench");
      }
    }
  }

  @Test
  void deliveredTwiceReplacedAndGoneWithoutATrace() throws IOException {
    Trace before = workshop.trace();
    assertThat(workshop.ok("deploy", "--to", "bench")).contains(line.label());
    String process = workshop.process();
    Trace stands = workshop.trace();
    String right = Workshop.OWNER_PASSWORD;
    assertThat(workshop.pageFor("robin", right, "/spokes/ledger")).contains("repairs done, robin");
    assertThat(workshop.pageFor("robin", right + "x", "/spokes/ledger")).startsWith("401");
    String mechanic = Workshop.MECHANIC_PASSWORD;
    assertThat(workshop.pageFor("mia", mechanic, "/spokes/ledger")).startsWith("403");
    assertThat(workshop.ok("deploy", "--to", "bench")).contains("Unchanged");
    assertThat(workshop.process()).isEqualTo(process);
    workshop.trace().isAs(stands);
    assertThat(workshop.ok("apps", "--on", "bench"))
        .containsPattern(line.label() + "[.\\d]*, pid " + process.split(" ")[0])
        .containsPattern(
            "/spokes +spokes 1.4.0 +"
                + (line.tellsStates() ? "STARTED +200 +\\d+ sessions?" : "200")
                + (line.countsConnections() ? " +jdbc/spokes \\d" : ""));
    workshop.trace().isAs(stands);
    deliver(bells.answering("one"));
    assertThat(workshop.page("/bell/")).isEqualTo("200 one");
    assertThat(workshop.statusFor("bikes.example", "/bell/")).isEqualTo("200");
    deliver(bells.answering("two"));
    assertThat(workshop.page("/bell/")).isEqualTo("200 two");
    workshop.ok(BELL);
    assertThat(workshop.process()).isEqualTo(process);
    workshop.trace().isAs(stands);
    workshop.program.with("ROBIN_PASSWORD", "a new bell");
    workshop.ok("deploy", "--to", "bench");
    workshop.program.with("ROBIN_PASSWORD", right);
    assertThat(workshop.process().equals(process)).isEqualTo(line.readsUsersLive());
    assertThat(workshop.pageFor("robin", "a new bell", "/spokes/ledger")).startsWith("200");
    assertThat(workshop.pageFor("robin", right, "/spokes/ledger")).startsWith("401");
    for (String form : List.of("--diff", "--json")) {
      workshop.ok("undeploy", "--from", "bench", "--dry-run", form);
    }
    assertThat(workshop.ok("undeploy", "--from", "bench")).contains("Stays").contains("data/");
    workshop.trace().isAs(before);
    assertThat(workshop.page("/spokes/")).startsWith("404");
  }

  @Test
  void whatGoesWhileItIsStoppedDoesNotComeBack() throws IOException {
    Trace before = workshop.trace();
    deliver(bells.answering("one"));
    workshop.ok("server", "stop", "bench");
    assertThat(workshop.processes()).isEmpty();
    workshop.ok(BELL);
    workshop.trace().isAs(before);
    workshop.ok("server", "start", "bench");
    assertThat(workshop.page("/bell/")).startsWith("404");
    workshop.trace().isAs(before);
  }

  @Test
  void whoeverMustLogInIsKeptOutWhereNobodyMay() throws IOException {
    deliver(bells.guarded());
    assertThat(workshop.page("/bell/index.html")).startsWith("200");
    assertThat(workshop.page("/bell/desk.html")).startsWith("401");
    assertThat(workshop.pageFor("robin", "any", "/bell/desk.html")).startsWith("401");
  }

  @Test
  void persistenceUnitsFindTheDataSourceThatIsDescribed() throws IOException {
    assumeTrue(line.persists(), "it has none");
    Trace before = workshop.trace();
    Path desk = Files.createDirectories(workshop.folder.resolve("desk"));
    bells.persisting(desk, "jdbc/bikes");
    assertThat(Workshop.deskOf(desk).ends(0, "deploy", "--to", "bench").out())
        .contains("Delivered bell");
    assertThat(workshop.page("/bell/units"))
        .matches("200 global\\[.*/data/bikes]own\\[.*/data/bikes]");
    workshop.ok(BELL);
    workshop.trace().isAs(before);
  }

  @Test
  void theAdminListenerIsApart() throws IOException {
    Trace before = workshop.trace();
    if (!line.hasAdmin()) {
      assertThat(ends(4, bells.answering("one"), "--on-admin-port")).contains("no admin listener");
      workshop.trace().isAs(before);
      return;
    }
    deliver(bells.answering("one"), "--on-admin-port");
    assertThat(workshop.page(workshop.admin, "/bell/")).isEqualTo("200 one");
    assertThat(workshop.page("/bell/")).startsWith("404");
    workshop.ok(BELL);
    workshop.trace().isAs(before);
  }

  @Test
  void whatCannotWorkIsRefused() throws IOException {
    Path broken =
        Wars.empty(folder)
            .entry("WEB-INF/web.xml", "<web-app>\n  <listener>\n</web-app>")
            .write("broken.war");
    byte[] whole = Files.readAllBytes(bells.answering("never"));
    Path torn = Files.write(folder.resolve("torn.war"), Arrays.copyOf(whole, whole.length * 2 / 3));
    Path asking =
        Wars.with(
                folder,
                "<resource-ref><res-ref-name>jdbc/bikes</res-ref-name>"
                    + "<res-type>javax.sql.DataSource</res-type></resource-ref>")
            .entry("index.html", "it asks for what nobody gives it")
            .write("asking.war");
    Path newer = bells.newer();
    workshop.ok("server", "start", "bench");
    Trace before = workshop.trace();
    assertThat(ends(4, broken)).contains("broken.war: WEB-INF/web.xml:3:");
    assertThat(ends(4, torn)).contains("Cannot read '" + torn + "' as an archive");
    assertThat(ends(4, asking)).contains("jdbc/bikes", "[datasource.\"jdbc/bikes\"]");
    assertThat(ends(4, newer)).contains("needs Java 25");
    if (!line.servesBoth()) {
      assertThat(ends(4, bells.foreign()))
          .contains("it is made for " + line.otherNamespace() + ".servlet, and ")
          .contains("offers " + line.namespace + ".servlet")
          .contains("seen  WEB-INF/classes/shop/Bell.class");
    }
    workshop.trace().isAs(before);
  }

  @Test
  void itServesEitherNamespaceWhereItCan() throws IOException {
    assumeTrue(line.servesBoth());
    Trace before = workshop.trace();
    deliver(bells.answering("one"));
    deliver(bells.foreign());
    assertThat(workshop.page("/bell/")).isEqualTo("200 one");
    assertThat(workshop.page("/foreign/")).isEqualTo("200 never");
    workshop.ok("undeploy", "foreign", "--from", "bench");
    workshop.ok(BELL);
    workshop.trace().isAs(before);
  }

  @Test
  void whatFailsIsTakenBack() throws IOException {
    Path throwing = bells.failing("Throws", "throw new IllegalStateException(\"no tyres\");");
    Path lacking = bells.failing("Lacks", "new Pump();");
    Path unknown =
        Wars.with(
                folder,
                "<servlet-mapping><servlet-name>ghost</servlet-name>"
                    + "<url-pattern>/ghost</url-pattern></servlet-mapping>")
            .write("unknown.war");
    Path unloaded =
        Wars.with(
                folder,
                "<servlet><servlet-name>s</servlet-name><servlet-class>shop.Desk</servlet-class>"
                    + "<load-on-startup>1</load-on-startup></servlet>")
            .using(line.namespace)
            .source(
                "Desk",
                "public class Desk extends jakarta.servlet.http.HttpServlet {\n"
                    + "@Override public void init() { throw new IllegalStateException(\"no desk\"); }}")
            .entry("index.html", "<p>answers all the same</p>")
            .write("unloaded.war");
    deliver(bells.answering("one"));
    Trace stands = workshop.trace();
    assertThat(ends(5, throwing))
        .contains("Failed: listener shop.Throws threw IllegalStateException: no tyres")
        .contains("at    shop.Throws.contextInitialized(Throws.java:4)")
        .contains("told in logs/server.log:")
        .contains("Taken back: bench is as it was");
    assertThat(ends(5, lacking))
        .contains("Failed: class shop.Pump is missing")
        .contains("at    shop.Lacks.contextInitialized(Lacks.java:4)")
        .contains("fix   Add the library that holds it to WEB-INF/lib");
    if (line.mindsUnknownServlets()) {
      assertThat(ends(5, unknown)).contains("ghost");
    }
    assertThat(ends(5, unloaded))
        .contains("Failed: IllegalStateException: no desk")
        .contains("at    shop.Desk.init(Desk.java:3)");
    workshop.settlesAs(stands);
    assertThat(workshop.page("/bell/")).isEqualTo("200 one");
  }

  /** The release before answers again when the command returns. */
  @Test
  void theOldReleaseAnswersAfterATakeBack() throws IOException {
    deliver(bells.answering("one"));
    Trace stands = workshop.trace();
    Path hanging =
        bells.listening(
            "bell",
            "Start",
            "try { new java.util.concurrent.CountDownLatch(1).await(); }"
                + " catch (InterruptedException e) { return; }",
            "two");
    assertThat(ends(5, hanging, "--starts-within", "8s"))
        .contains("shop.Start.contextInitialized(Start.java:4)");
    assertThat(workshop.page("/bell/")).isEqualTo("200 one");
    workshop.settlesAs(stands);
    assertThat(workshop.processes()).hasSize(1);
  }

  @Test
  void aWrongAnswerIsTakenBackWhateverTheServerSays() throws IOException {
    Path one = bells.answering("one");
    deliver(one);
    Trace stands = workshop.trace();
    assertThat(ends(5, bells.throwing()))
        .contains("got      500", line.logsRequests() ? "at    shop.Bell.doGet(Bell.java:" : "")
        .contains("Taken back: bench is as it was");
    workshop.settlesAs(stands);
    assertThat(workshop.page("/bell/")).isEqualTo("200 one");
    assertThat(workshop.ok(deploying(one))).contains("Unchanged");
  }

  /** A listener of a server that is down tells its cause, and the next delivery starts it again. */
  @Test
  void anApplicationThatDoesNotComeUpWithItsServerIsTold() throws IOException {
    Path war =
        bells.listening(
            "bell",
            "Start",
            "if (new java.io.File(\"data/closed\").exists())"
                + " throw new IllegalStateException(\"closed today\");",
            "open");
    Path closed = workshop.server.resolve("data/closed");
    Files.createDirectories(closed.getParent());
    deliver(war);
    workshop.ok("server", "stop", "bench");
    Files.createFile(closed);
    String cause = "listener shop.Start threw IllegalStateException: closed today";
    assertThat(workshop.ends(7, "server", "start", "bench").out())
        .contains("Server bench started")
        .contains("Not up: bell: " + cause);
    assertThat(workshop.ends(7, "check", "bell", "--on", "bench").out()).contains(cause);
    assertThat(workshop.ok("server", "list")).contains("bell did not start: " + cause);
    assertThat(ends(5, war)).contains("Failed: " + cause);
    Files.delete(closed);
    deliver(war);
    assertThat(workshop.page("/bell/")).isEqualTo("200 open");
  }

  @Test
  void whatAKilledDeliveryLeftIsSettled() throws Exception {
    Path one = bells.answering("one");
    workshop.ok("server", "start", "bench");
    Trace before = workshop.trace();
    workshop.kill(journal -> journal.contains("\"step\":\"await\""), deploying(one));
    assertThat(workshop.ok("recover", "--on", "bench")).contains("Taken back", "not proven");
    workshop.trace().isAs(before);
    deliver(one);
    assertThat(workshop.page("/bell/")).isEqualTo("200 one");
  }

  private void deliver(Path war, String... more) {
    workshop.ok(deploying(war, more));
  }

  private String ends(int exit, Path war, String... more) {
    return workshop.ends(exit, deploying(war, more)).all();
  }

  private static String[] deploying(Path war, String... more) {
    String[] command = {"deploy", war.toString(), "--undescribed", "--to", "bench"};
    String[] all = Arrays.copyOf(command, command.length + more.length);
    System.arraycopy(more, 0, all, command.length, more.length);
    return all;
  }
}

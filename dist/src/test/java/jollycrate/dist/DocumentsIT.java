package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whatever command a machine reads, its one document is as the schema says, at every end. */
class DocumentsIT {
  private static final List<String> ENDINGS =
      List.of(
          "pack",
          "pack --all",
          "inspect packed/spokes-1.4.0.war",
          "compare packed/spokes-1.4.0.war packed/spokes-1.4.0-solo.war",
          "deploy --to bench --dry-run",
          "deploy --to bench",
          "deploy --to bench",
          "check --on bench",
          "check --on bench --on bench",
          "check nothing --on bench",
          "report --on bench --report report.html",
          "deploy packed/spokes-1.4.0.war --undescribed --path /second --to bench",
          "deliveries --on bench",
          "deliveries --times --on bench",
          "settings --on bench",
          "app restart --on bench",
          "app stop --on bench",
          "app start --on bench",
          "server users bench",
          "server users bench add robin --roles staff --password env:ROBIN_PASSWORD",
          "server users bench",
          "server harden bench",
          "server change bench memory=200m https=0",
          "server change bench memory=200m",
          "rollback 1 --on bench",
          "rollback 9 --on bench",
          "deliveries 1 --on bench",
          "deliveries 99 --on bench",
          "server list",
          "server test bench",
          "apps",
          "server adopt servers/bench --name again",
          "server log bench",
          "server start bench",
          "server restart bench",
          "recover --on bench",
          "undeploy --from bench",
          "undeploy --from bench",
          "server stop bench",
          "server remove bench",
          "server remove bench --delete",
          "server new other --kind service",
          "host new app1",
          "host new app1",
          "host open app1 8080",
          "host list",
          "host test app1",
          "host trust app1",
          "host stop app1",
          "host list",
          "host start app1",
          "host close app1 8080",
          "host stop app1",
          "host open bench 1",
          "deploy --to nowhere",
          "deploy --json --nonsense");

  @TempDir Path folder;

  @Test
  void everyDocumentIsAsTheSchemaSays() throws IOException {
    Schema schema = schema();
    try (Workshop workshop = Workshop.open(folder)) {
      for (String line : ENDINGS) {
        Program.Run run = workshop.program.run((line + " --json").split(" "));
        assertThat(schema.validate(run.out(), InputFormat.JSON)).as(line + run.all()).isEmpty();
        assertThat(run.out()).as(line).contains("\"exit\" : " + run.exit());
      }
    }
    try (OwnTomcat own = new OwnTomcat(Line.ELEVEN, folder)) {
      Program program = new Program(own.folder);
      for (String line :
          List.of("server adopt . --name shop", "server test shop", "server log shop")) {
        String told = program.ends(0, (line + " --json").split(" ")).out();
        assertThat(schema.validate(told, InputFormat.JSON)).as(told).isEmpty();
      }
    }
    Path project = Files.createDirectories(folder.resolve("project"));
    Files.writeString(
        project.resolve("pom.xml"),
        "<project><artifactId>shop</artifactId><version>1</version><packaging>war</packaging>"
            + "<dependencies><dependency><groupId>com.h2database</groupId><artifactId>h2</artifactId>"
            + "</dependency></dependencies></project>");
    Path web = Files.createDirectories(project.resolve("src/main/webapp/WEB-INF"));
    Files.copy(Program.HOME.resolve("samples/spokes/web/WEB-INF/web.xml"), web.resolve("web.xml"));
    Files.writeString(Files.createDirectory(project.resolve("db")).resolve("1.sql"), "SELECT 1;");
    Program program = new Program(project);
    for (int i = 0; i < 2; i++) {
      String draft = program.run("draft", "--json").out();
      assertThat(schema.validate(draft, InputFormat.JSON)).as(draft).isEmpty();
      assertThat(draft).contains("\"written\" : " + (i == 0));
    }
    assertThat(project.resolve("jolly.toml"))
        .content()
        .contains(
            "version = \"pom:pom.xml\"",
            "leave-out = [\"WEB-INF/lib/h2-*.jar\"]",
            "# tell: sql = \"db/*.sql\"",
            "[[access]]\npaths = [\"/ledger\"]");
  }

  /** In the built program, where the sources are not. */
  @Test
  void everyLinkOfTheDocsLeadsSomewhere() throws IOException {
    Pattern link = Pattern.compile("]\\((?!https?:)([^)#]*)(?:#[^)]*)?\\)");
    Path docs = Program.HOME.resolve("docs");
    try (Stream<Path> pages = Files.list(docs)) {
      for (Path page : pages.filter(file -> file.toString().endsWith(".md")).toList()) {
        link.matcher(Files.readString(page))
            .results()
            .map(found -> found.group(1))
            .filter(target -> !target.isEmpty())
            .forEach(target -> assertThat(docs.resolve(target)).as(page.toString()).exists());
      }
    }
  }

  @Test
  void wordsAndNamesAreCompleted() throws Exception {
    Files.writeString(folder.resolve("servers.toml"), "[server.bench]\n[host.app1]\n");
    assertThat(completed("server", "star")).isEqualTo("start");
    assertThat(completed("server", "start", "b")).isEqualTo("bench");
    assertThat(completed("host", "test", "")).isEqualTo("app1");
    assertThat(completed("deploy", "--to", "")).isEqualTo("bench");
    assertThat(completed("app", "st")).isEqualTo("start stop");
    assertThat(completed("deploy", "--dry")).isEqualTo("--dry-run");
  }

  private String completed(String... words) throws Exception {
    List<String> command = new ArrayList<>();
    command.add("bash");
    command.add("-c");
    command.add(
        "source '"
            + Program.HOME.resolve("share/completion/jolly.bash")
            + "'; COMP_WORDS=(jolly \"$@\"); COMP_CWORD=$#; _jolly; echo \"${COMPREPLY[*]}\"");
    command.add("jolly");
    command.addAll(List.of(words));
    Process bash = new ProcessBuilder(command).directory(folder.toFile()).start();
    return new String(bash.getInputStream().readAllBytes(), StandardCharsets.UTF_8).strip();
  }

  static Schema schema() throws IOException {
    return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
        .getSchema(
            SchemaLocation.of("urn:documents"),
            Files.readString(Program.HOME.resolve("docs/schema/documents.schema.json")),
            InputFormat.JSON);
  }
}

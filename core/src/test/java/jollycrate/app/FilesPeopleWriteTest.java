package jollycrate.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.secret.Reference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What people write is understood, and what they get wrong is named with its place and fix. */
class FilesPeopleWriteTest {
  private static final String BASE = "name = \"shop\"\nartifact = \"shop.war\"\n";

  @TempDir Path folder;

  private Path write(String text) throws IOException {
    return Files.writeString(folder.resolve("jolly.toml"), text);
  }

  private List<Problem> problems(String text) throws IOException {
    return problems(folder, text);
  }

  /** What is wrong in a description of an application that stands in a folder. */
  static List<Problem> problems(Path folder, String text) throws IOException {
    Path file = Files.writeString(folder.resolve("jolly.toml"), text);
    ProblemsException found =
        catchThrowableOfType(
            ProblemsException.class,
            () -> ApplicationFile.read(file, Optional.empty(), Reference::text));
    return found == null ? List.of() : found.problems();
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      quoteCharacter = '`',
      textBlock =
          """
          [app]\\npth = "/x"                          | 4:1 | unknown key 'pth' in [app] | 'path'
          [app]\\npath = "x"                          | 4:1 | 'x' is no context path | "/spokes"
          [app]\\nhost = "a b"                        | 4:1 | 'a b' is no name of a host | desk.spokes.example
          [app]\\npath = "/../x"                      | 4:1 | is no context path | "/spokes"
          [app]\\nstarts-within = "soon"              | 4:1 | is no length of time | "5s"
          [datasource."jdbc/x"]\\ndriver = "d.jar"    | 3:1 | 'datasource."jdbc/x".url' is missing | URL
          [datasource.x]\\nurl = "h2:x"\\ndriver = "d" | 4:1 | 'h2:x' is no JDBC URL | "jdbc:"
          [users]\\nanna = "secret"                   | 4:1 | a password must not stand in this file | env:NAME
          [roles]\\nowner = ["anna"]                  | 4:1 | 'anna' who is not in [users] | Add [users]
          [[before]]\\nsql = "jolly.toml"             | 3:1 | 'before.source' is missing | [datasource."NAME"]
          [datasource.x]\\nurl = "jdbc:x"\\ndriver = "d"\\n[[before]]\\nsql = "a.sql" | 7:1 | there is no file | Write it
          [datasource.x]\\nurl = "jdbc:x"\\ndriver = "d"\\n[[before]]\\nsql = "db/*.sql" | 7:1 | there is no folder | Make it
          [datasource.x]\\nurl = "jdbc:x"\\ndriver = "d"\\n[[before]]\\nrun = "sh x" | 7:1 | one argument with blanks | ["sh", "x"]
          [datasource.x]\\nurl = "jdbc:x"\\ndriver = "d"\\n[[before]]\\nrun = ["sh", "jolly.toml"] | 7:1 | 'jolly.toml' is not there where this runs | files = ["jolly.toml"]
          [[check]]\\nname = "x"                      | 3:1 | 'check.get' is missing | get =
          [[check]]\\nget = "/"\\npost = "/"          | 5:1 | one request, not 2 | two checks
          [[check]]\\nget = "/"\\nstatsu = 200        | 5:1 | unknown key 'statsu' | 'status'
          [[check]]\\nget = "/"\\nas = "anna"         | 5:1 | there is no user 'anna' | Known here
          [[check]]\\nget = "/"\\nstatus = "20"       | 5:1 | '20' is no status | "2xx"
          [[check]]\\nget = "/"\\nstatus = ["2xx", "404-300"] | 5:1 | '404-300' is no status | "2xx"
          [[check]]\\nget = "/"\\nmatches = "(a"       | 5:1 | is no regular expression: missing closing ) | Fix '(a' in it
          [[check]]\\nget = "/"\\nleads-to = "login"   | 5:1 | is no place to be sent on to | '/'
          [[check]]\\nget = "/"\\ntype = "html"        | 5:1 | is no type of media | "application/json"
          [[check]]\\nget = "/"\\njson = { "/a" = { count = "2" } } | 5:1 | 'count' of /a | exists
          [[check]]\\npost = "/"\\nbody = 1\\nform = { a = "b" } | 6:1 | one body | Remove one
          [[check]]\\npost = "/"\\nform = { j_password = "env:P" } | 5:1 | would be sent as it is written | 'as'
          [[check]]\\nget = "/"\\nsend-headers = { authorization = "Bearer x" } | 5:1 | a secret must not stand in this file | 'as'
          [[check]]\\npage = "/"\\nget = "/"           | 4:1 | one request, not 2 | two checks
          [[access]]\\nallowed = "anyone"              | 3:1 | 'access.paths' is missing | paths =
          [[access]]\\npaths = "/x"                    | 3:1 | 'access.allowed' is missing | "anyone"
          [[access]]\\npaths = "/x"\\nallowed = "anna" | 5:1 | there is no user 'anna' | Known here: none
          [[access]]\\npaths = "x"\\ndenied = "anyone" | 4:1 | is no path below the context path | '/'
          [[access]]\\npaths = "/x"\\nallowed = "anyone"\\ndenied = "anyone" | 6:1 | both allowed and denied | Keep one
          [for.shop]\\ncheck = 1                      | 4:1 | unknown key 'check' | app
          [pack]\\nclasses = "c"                      | 2:1 | both 'artifact' and [pack] are given | Keep one
          [program]\\narguments = "serve --port={port}" | 4:1 | is one argument with blanks | ["serve", "--port={port}"]
          [program]\\narguments = ["--port={prot}"]     | 4:1 | stands for nothing | {port}
          [program]\\njava-options = ["-Da={setings}"]          | 4:1 | stands for nothing | {settings}
          [program]\\narguments = ["{\\"a\\": 1}", "{x}"]\\nrestart = "yes" | 5:1 | 'restart' is "yes" | never
          [program]\\nport = "own"\\narguments = ["{port}"] | 4:1 | told its port twice | Remove
          [program]\\nstops-within = "10ms"             | 4:1 | less than a second | 1s
          [program]\\narguments = ["{settings}"]        | 3:1 | none is named | app.properties
          """)
  void aMistakeIsNamed(String lines, String place, String message, String fix) throws IOException {
    assertThat(problems(BASE + lines.replace("\\n", "\n")))
        .anySatisfy(
            problem -> {
              assertThat(problem.line() + ":" + problem.column()).isEqualTo(place);
              assertThat(problem.message()).contains(message);
              assertThat(problem.fix()).contains(fix);
            });
  }

  @Test
  void allMistakesAreToldAtOnce() throws IOException {
    assertThat(problems("nmae = 1\nversion = 2\n[app]\nx = 1\n[pack]\nshape = \"jar\"\n"))
        .extracting(Problem::line)
        .containsExactly(1, 1, 2, 4, 5, 6);
    assertThat(problems("name = \n[app\npath = \"/x\"\n")).hasSizeGreaterThan(1);
  }

  @Test
  void ownValuesOfAServerLieOverTheCommonOnes() throws IOException {
    Path file =
        write(
            BASE
                + """
                [datasource."jdbc/x"]
                url = "jdbc:h2:mem:a"
                driver = "d.jar"
                [for.shop.datasource."jdbc/x"]
                url = "jdbc:h2:mem:b"
                [for.shop.app]
                path = "/other"
                """);
    Application common =
        ApplicationFile.read(
            file, Optional.of(new ForServer("bench", Optional.empty())), Reference::text);
    Application own =
        ApplicationFile.read(
            file, Optional.of(new ForServer("shop", Optional.empty())), Reference::text);
    assertThat(common.dataSources().get(0).url()).isEqualTo("jdbc:h2:mem:a");
    assertThat(own.dataSources().get(0).url()).isEqualTo("jdbc:h2:mem:b");
    assertThat(own.dataSources().get(0).driver()).isEqualTo(folder.resolve("d.jar"));
    assertThat(own.context().path()).contains("/other");
  }

  /** Values beside the server count most; their paths start from the file that they stand in. */
  @Test
  void valuesBesideTheServerCountMost() throws IOException {
    Path file =
        write(
            BASE
                + """
                [datasource.x]
                url = "jdbc:h2:mem:a"
                driver = "d.jar"
                password = "file:pw"
                pool = { max = 2, wait = "1s" }
                [env-entry]
                bays = 4
                [for.bench.env-entry]
                bays = 5
                key = "file:key"
                """);
    Path team = Files.createDirectory(folder.resolve("team"));
    Path servers = team.resolve("servers.toml");
    String described = "[server.bench]\nfolder = 'x'\nhttp = 1\nadmin = 2\n";
    Files.writeString(
        servers,
        described
            + """
            [for.bench.shop.env-entry]
            bays = 6
            [for.bench.shop.datasource.x]
            driver = "e.jar"
            password = "file:pw"
            pool.max = 3
            """);
    ForServer bench = new ForServer("bench", Optional.of(servers));
    Application read = ApplicationFile.read(file, Optional.of(bench), Reference::text);
    assertThat(read.context().entries()).extracting(EnvEntry::value).contains("6", "file:key");
    DataSource source = read.dataSources().get(0);
    assertThat(source.driver()).isEqualTo(team.resolve("e.jar"));
    assertThat(source.password().orElseThrow().text()).isEqualTo("file:" + team.resolve("pw"));
    assertThat(source.most()).isEqualTo(3);
    assertThat(source.patience()).hasSeconds(1);
    assertThat(ApplicationFile.written(file, bench, Reference::text))
        .contains(
            new Written("env-entry.bays", "6", servers + ":6", List.of(file + ":11", file + ":9")));
    assertThat(ServersFile.read(servers)).hasSize(1);

    Files.writeString(
        servers, described + "[for.bench.shop.app]\npth = 1\n[for.benc.shop]\nap.x = 1\n");
    assertThatThrownBy(() -> ApplicationFile.read(file, Optional.of(bench), Reference::text))
        .hasMessageContaining(servers + ":6:1: unknown key 'pth' in [app]");
    assertThatThrownBy(() -> ServersFile.read(servers))
        .hasMessageContaining(servers + ":7:1: there is no [server.benc]. Did you mean 'bench'?")
        .hasMessageContaining(servers + ":8:1: unknown key 'ap' in [for.benc.shop]");
  }

  @Test
  void aVersionStandsWhereItIsSaidToStand() throws IOException {
    Files.writeString(
        folder.resolve("pom.xml"),
        "<project><version>${revision}</version><parent><version>1</version></parent>"
            + "<properties><revision>2.0.${patch}</revision><patch>7</patch></properties></project>");
    Path file = write(BASE + "version = \"pom:pom.xml\"\n");
    assertThat(ApplicationFile.read(file, Optional.empty(), Reference::text).version())
        .contains("2.0.7");
    assertThat(problems(BASE + "version = \"pom:absent.xml\"\n"))
        .singleElement()
        .satisfies(problem -> assertThat(problem.message()).contains("tells no version"));
    Path own = write(BASE + "version = \"env:RELEASE\"\n");
    assertThat(ApplicationFile.read(own, Optional.empty(), any -> "3.1").version()).contains("3.1");
  }

  @Test
  void aDriverMayBeAPatternForOneFile() throws IOException {
    Files.createFile(folder.resolve("h2-2.4.jar"));
    String source = "[datasource.db]\nurl = \"jdbc:h2:x\"\ndriver = \"h2-*.jar\"\n";
    Path file = write(BASE + source);
    Application read = ApplicationFile.read(file, Optional.empty(), Reference::text);
    assertThat(read.dataSources().get(0).driver()).isEqualTo(folder.resolve("h2-2.4.jar"));
    Files.createFile(folder.resolve("h2-2.3.jar"));
    assertThat(problems(BASE + source))
        .singleElement()
        .satisfies(problem -> assertThat(problem.message()).contains("several files match"));
  }

  @Test
  void scriptsOfAPatternAreInTheOrderOfTheirNumbersAndKnowWhatUndoesThem() throws IOException {
    Path undo = Files.createDirectories(folder.resolve("db/undo"));
    for (String name : List.of("db/10.sql", "db/9.sql", "db/undo/9.sql", "db/x.txt")) {
      Files.writeString(folder.resolve(name), "");
    }
    String source = "[datasource.x]\nurl = \"jdbc:x\"\ndriver = \"d.jar\"\n";
    String before = "[[before]]\nsql = \"db/*.sql\"\nundo = \"db/undo\"\n";
    Path file = write(BASE + source + before);
    List<Script> scripts =
        ApplicationFile.read(file, Optional.empty(), Reference::text)
            .dataSources()
            .get(0)
            .scripts();
    assertThat(scripts).extracting(Script::name).containsExactly("db/9.sql", "db/10.sql");
    assertThat(scripts)
        .extracting(Script::undo)
        .containsExactly(
            Optional.of(new Script.Sql(undo.resolve("9.sql"), Optional.empty())), Optional.empty());
    assertThat(problems(BASE + source + before + "[[before]]\nsql = \"db/9.sql\""))
        .extracting(Problem::message)
        .containsExactly("'db/9.sql' is written twice: it would count as applied");
  }

  @Test
  void whatNobodyCouldReadIsRefusedSoon() throws IOException {
    Path file = folder.resolve("jolly.toml");
    Files.writeString(file, "name = [\n" + "(".repeat(40_000));
    assertThatThrownBy(() -> ApplicationFile.read(file, Optional.empty(), reference -> ""))
        .isInstanceOfAny(NotDescribedException.class, ProblemsException.class);
    Files.writeString(
        file,
        "name = 'shop'\nversion = '1'\n[pack]\nclasses = 'c'\nmain = '"
            + "a.".repeat(20_000)
            + "'\n");
    assertThatThrownBy(() -> ApplicationFile.read(file, Optional.empty(), reference -> ""))
        .isInstanceOf(ProblemsException.class)
        .hasMessageContaining("is no class name");
  }
}

package jollycrate.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaLocation;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.secret.Reference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.tomlj.Toml;

/** What people write is understood, and what they get wrong is named with its place and fix. */
class FilesPeopleWriteTest {
  private static final String BASE = "name = \"shop\"\nartifact = \"shop.war\"\n";

  @TempDir Path folder;

  private Path write(String text) throws IOException {
    return Files.writeString(folder.resolve("jolly.toml"), text);
  }

  private List<Problem> problems(String text) throws IOException {
    Path file = write(text);
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
          [[check]]\\nname = "x"                      | 3:1 | 'check.get' is missing | get =
          [[check]]\\nget = "/"\\npost = "/"          | 5:1 | one request, not 2 | two checks
          [[check]]\\nget = "/"\\nstatsu = 200        | 5:1 | unknown key 'statsu' | 'status'
          [[check]]\\nget = "/"\\nas = "anna"         | 5:1 | there is no user 'anna' | Known here
          [[check]]\\nget = "/"\\nstatus = "200"      | 5:1 | 'status' is not a whole number | ``
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

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "[app]\npath = \"/\"\nstarts-within = \"2m\"",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\npool = { max = 3 }",
        "[users]\nanna = \"env:A\"\nbert = \"there\"\ncarl = { existing = \"file:x\" }\n"
            + "[roles]\nowner = [\"anna\"]\n[[check]]\nput = \"/x\"\nbody = { a = [1, true] }\n"
            + "status = 201\njson = { \"/a\" = 1.5 }\nwithin = \"1s\"\nas = \"anna\"",
        "[app]\npth = \"/\"",
        "[app]\npath = \"x\"",
        "[datasource.x]\nurl = \"x\"\ndriver = \"d.jar\"",
        "[datasource.x]\nurl = \"jdbc:x\"",
        "[users]\nanna = \"plain\"",
        "[[check]]\nget = \"x\"",
        "[[check]]\nget = \"/\"\npost = \"/\"",
        "[[check]]\nget = \"/\"\nstatus = 99",
        "[[check]]\nget = \"/\"\njson = { a = 1 }",
        "[for.shop]\nname = \"x\"",
        "[settings]\na = 1",
        "[settings]\na = 1\n[program]\nsettings-file = \"a.yaml\"\nport = { setting = \"p.q\" }",
        "[program]\nport = { argument = \"-p\" }\njava-options = \"-Xss1m\"\nvariables = { A = \"env:B\" }\n"
            + "folder = \"data\"\nready = \"up\"\nstops-within = \"5s\"\nrestart = \"on-crash\"",
        "[program]\nport = \"own\"\naddress = { property = \"bind\" }",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n"
            + "[program.datasource.x]\nurl = { property = \"u\" }\npassword = { variable = \"P\" }",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n"
            + "[program.datasource.x]\npassword = { argument = \"P\" }",
        "[program]\nport = \"mine\"",
        "[program]\nport = { argument = \"-p\", variable = \"P\" }",
        "[program]\nrestart = \"always\"",
        "[program]\nfolder = \"../x\"",
        "[program]\nsettings-file = \"a.ini\"",
        "[program]\nvariables = { \"a-b\" = \"x\" }",
        "[for.shop.program]\narguments = [\"x\"]",
        "[pack]\nclasses = \"c\""
      })
  void schemaAndReaderAgree(String lines) throws IOException {
    boolean read = problems(BASE + lines).isEmpty();
    String json = Toml.parse(BASE + lines).toJson();
    assertThat(schema("jolly").validate(json, InputFormat.JSON).isEmpty()).isEqualTo(read);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          [pack]\\nclasses = "c"\\nshape = "merged-jar"\\nmain = "a.B"                    | true
          [pack]\\nweb = "w"\\n[pack.a]\\nshape = "war"\\n[pack.b]\\nshape = "front-end"         | true
          [pack]\\nweb = "w"\\nshape = "front-end"\\n[settings]\\napi = "/x"\\n[for.a.settings]\\nx = 1 | true
          [pack]\\nclasses = "c"\\n[build]\\ncommand = ["mvn"]\\nsources = "src"                | true
          [pack]\\nweb = "w"\\n[pack.a]\\nshape = "war"\\n[app]\\npack = "a"               | true
          [pack]\\nclasses = "c"\\nshape = "jar"                                        | false
          [pack]\\nclasses = "c"\\nlib = "x.jar"                                        | false
          [pack]\\nclasses = "c"\\n[pack.a]\\nlib = "x.jar"                             | false
          [pack]\\nclasses = "c"\\n[build]\\nsources = "src"                            | false
          [pack]\\nclasses = "c"\\nsettings-file = "/a.json"                                 | false
          [pack]\\nshape = "war"                                                        | false
          """)
  void schemaAndReaderOfPackingAgree(String lines, boolean right) throws IOException {
    String text = "name = \"shop\"\nversion = \"1\"\n" + lines.replace("\\n", "\n");
    assertThat(problems(text).isEmpty()).isEqualTo(right);
    assertThat(schema("jolly").validate(Toml.parse(text).toJson(), InputFormat.JSON).isEmpty())
        .isEqualTo(right);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          folder = "x"\\nhttp = 1\\nadmin = 2                    | true
          folder = "x"\\nhttp = 1\\ninstallation = "/t"          | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\nmemory = "1g"     | true
          folder = "x"\\nhttp = 1                               | false
          folder = "x"\\nhttp = 0\\nadmin = 2                    | false
          http = 1\\nadmin = 2                                  | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nport = 3          | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nmemory = "much"   | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\njava-options = ["-Xss1m"]  | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\njava-options = "Xss1m"     | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\njava-options = "-Xmx1g"    | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\njava-options = "-Dcatalina.base=x" | false
          folder = "x"\\nhttp = 1\\nservice = true             | true
          folder = "x"\\nhttp = 1\\nservice = true\\nlog-size = "2m"\\nlog-keep = 2\\nboot = "user" | true
          folder = "x"\\nhttp = 1\\nservice = true\\nadmin = 2   | false
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nlog = "l"\\nstart = ["a", "b"] | true
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nstart = "a"\\nboot = "user" | false
          folder = "x"\\nhttp = 1\\nservice = true\\nstart = "a" | false
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nunit = "tomcat10" | true
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nuser-unit = "a@b.service" | true
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nunit = "a b" | false
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nunit = "a"\\nlog = "l" | false
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nunit = "a"\\nuser-unit = "a" | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nservlet-api = "javax" | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\nservlet-api = "ee" | false
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nservlet-api = "javax" | false
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nstop-port = 0 | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\nstop-port = 8005 | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nhttps = 3 | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\nhttps = 3\\nkeystore = "k"\\nkeystore-password = "env:K" | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\nhttps = 3\\nkeystore = "k" | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nhttps = 3\\nkeystore = "k"\\nkeystore-password = "k" | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nkeystore = "k"\\nkeystore-password = "env:K" | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nhttps = 3\\ncertificate = "sha256:00" | false
          folder = "/x"\\nhttp = 1\\ninstallation = "/x"\\nhost = "h"\\n[host.h]\\nssh = "h" | true
          folder = "x"\\nhttp = 1\\ninstallation = "/x"\\nhost = "h"\\n[host.h]\\nssh = "h" | false
          folder = "/x"\\nhttp = 1\\nadmin = 2\\nhost = "h"\\n[host.h]\\nssh = "h" | false
          folder = "/x"\\nhttp = 1\\nservice = true\\nhost = "h"\\n[host.h]\\nssh = "h" | false
          folder = "x"\\nhttp = 1\\nservice = true\\nbeside = 2  | false
          folder = "x"\\nhttp = 1\\nservice = "yes"           | false
          folder = "x"\\nhttp = 1\\nservice = true\\nlog-size = "big" | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nboot = "never"   | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nlog-keep = 2     | false
          folder = "x"\\nhttp = 1\\nservice = true\\nbeside = 2\\n[server.a.front]\\nconfig = "c"\\nupstream = "u"\\nurl = "http://h:1"\\ntest = ["t"]\\nreload = ["r"] | true
          folder = "x"\\nhttp = 1\\nservice = true\\nbeside = 2\\n[server.a.front]\\nconfig = "c"\\nupstream = "u"\\nurl = "h:1"\\ntest = ["t"]\\nreload = ["r"] | false
          """)
  void schemaAndReaderOfServersAgree(String lines, boolean right) throws IOException {
    schemaAndReaderAgree("[server.a]\n" + lines.replace("\\n", "\n"), right);
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          ssh = "app1"                                         | true
          ssh = "rita@app1.example:2222"\\nsudo = "tomcat"      | true
          ssh = "app1"\\nconfig = "ssh_config"\\npassword = "env:P"\\nkey-password = "file:k" | true
          sudo = "tomcat"                                      | false
          ssh = "-oProxyCommand=x"                             | false
          ssh = "a b"                                          | false
          ssh = "app1"\\nsudo = "-s"                            | false
          ssh = "app1"\\npassword = "bell"                      | false
          ssh = "app1"\\nport = 22                              | false
          """)
  void schemaAndReaderOfHostsAgree(String lines, boolean right) throws IOException {
    schemaAndReaderAgree("[host.a]\n" + lines.replace("\\n", "\n"), right);
  }

  private void schemaAndReaderAgree(String text, boolean right) throws IOException {
    Path file = Files.writeString(folder.resolve("servers.toml"), text);
    Throwable failure = catchThrowableOfType(ProblemsException.class, () -> ServersFile.read(file));
    assertThat(failure == null).isEqualTo(right);
    assertThat(schema("servers").validate(Toml.parse(text).toJson(), InputFormat.JSON).isEmpty())
        .isEqualTo(right);
  }

  private static Schema schema(String name) throws IOException {
    try (InputStream in =
        FilesPeopleWriteTest.class.getResourceAsStream("/schema/" + name + ".schema.json")) {
      String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
      return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
          .getSchema(SchemaLocation.of("urn:" + name), text, InputFormat.JSON);
    }
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
}

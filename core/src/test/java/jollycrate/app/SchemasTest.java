package jollycrate.app;

import static org.assertj.core.api.Assertions.assertThat;
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
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.tomlj.Toml;

/** The JSON Schemas that ship say of a file what its reader says. */
class SchemasTest {
  private static final String BASE = "name = \"shop\"\nartifact = \"shop.war\"\n";

  @TempDir Path folder;

  @ParameterizedTest
  @ValueSource(
      strings = {
        "",
        "[app]\npath = \"/\"\nstarts-within = \"2m\"",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\npool = { max = 3 }",
        "[users]\nanna = \"env:A\"\nbert = \"there\"\ncarl = { existing = \"file:x\" }\n"
            + "[roles]\nowner = [\"anna\"]\n[[check]]\nput = \"/x\"\nbody = { a = [1, true] }\n"
            + "status = 201\njson = { \"/a\" = 1.5 }\nwithin = \"1s\"\nas = \"anna\"\nfrom = \"host\"",
        "[users]\nanna = \"env:A\"\n[[check]]\npost = \"/\"\nform = { a = \"b\" }\n"
            + "status = [\"2xx\", 404]\ntype = \"a/b\"\nmatches = \"a+\"\nheaders = { A = \"b\" }\n"
            + "[[check]]\npage = \"/\"\nsend-headers = { A = \"b\" }\nleads-to = \"/a\"\n"
            + "[[access]]\npaths = \"/\"\nallowed = \"anyone\"\ndenied = [\"anna\"]",
        "[values]\na = 1\n[[check]]\nas = \"anna\"\nretry-for = \"2s\"\n[[check.request]]\n"
            + "post = \"/{a}\"\nremember = { b = \"/id\", c = \"header:X\", d = \"text:(x)\" }\n"
            + "size = { least = 1 }\ncertificate-days = 3\n[[check.request]]\npage = \"{b}\"\n"
            + "depth = 2\ntype = \"text/html; charset=utf-8\"\nsize = 3\n[[check.afterwards]]\n"
            + "delete = \"/{b}\"\n[logins]\nanna = { token = \"env:T\" }",
        "[logins]\nanna = { form = \"/in\", password = \"env:P\" }",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[data]]\nquery = \"SELECT 1\"\n"
            + "[[data]]\nname = \"n\"\nsource = \"x\"\nquery = \"with a\"\nvalue = { least = 1 }",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[data]]\nquery = \"DELETE\"",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[data]]\nvalue = 1",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[data]]\nquery = \"SELECT 1\"\n"
            + "value = { a = 1 }",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[before]]\nsql = \"jolly.toml\"\nundo = \"u.sql\"\n"
            + "split-at = \"GO\"\n[[before]]\nname = \"n\"\nsource = \"x\"\nwithin = \"1m\"\n"
            + "run = [\"sh\", \"m.sh\"]\nfiles = \"jolly.toml\"\nundo = [\"sh\"]",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[before]]\nundo = \"u.sql\"",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[before]]\nsql = \"jolly.toml\"\nrun = \"x\"",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[before]]\nsql = \"jolly.toml\"\nfiles = \"jolly.toml\"",
        "[datasource.x]\nurl = \"jdbc:h2:mem:x\"\ndriver = \"d.jar\"\n[[before]]\nrun = \"x\"\nsplit-at = \"GO\"",
        "[logins.anna]\npost = \"/in\"\npassword = \"env:P\"\nbody = { a = \"{user}\" }\ntoken-at = \"/t\"",
        "[logins.anna]\ntoken = \"env:P\"\ntoken-at = \"/t\"",
        "[logins.anna]\npost = \"/in\"\npassword = \"env:P\"\nbody = \"x\"",
        "[logins.anna]\npost = \"/in\"\ntoken = \"env:P\"",
        "[logins.anna]\npost = \"/in\"\npassword = \"env:P\"\ntoken-at = \"t\"",
        "[logins]\nanna = { form = \"/in\", token = \"env:P\" }",
        "[logins]\nanna = { token = \"env:P\", password = \"env:P\" }",
        "[logins]\nanna = { token = \"plain\" }",
        "[values]\nA = 1",
        "[values]\na = \"env:A\"",
        "[[check]]\nget = \"/\"\n[[check.request]]\nget = \"/\"",
        "[[check]]\nget = \"/\"\nvaries = [\"/a\", \"b+\"]\ntime = { requests = 9, at-once = 2, p95 = \"1s\" }",
        "[[check]]\nget = \"/\"\ntime = { p94 = \"1s\" }",
        "[[check]]\nget = \"/\"\ntime = { requests = 0 }",
        "[[check]]\nget = \"/\"\ndepth = 2",
        "[[check]]\npage = \"/\"\nbrowser = true",
        "[[check]]\nget = \"/\"\nbrowser = true",
        "[[check]]\nget = \"/\"\nsize = -1",
        "[[check]]\nget = \"/\"\nremember = { a = \"id\" }",
        "[[check]]\nget = \"/\"\nremember = { A = \"/id\" }",
        "[[check]]\nget = \"/\"\nremember = { a = \"text:x\" }",
        "[[check]]\nget = \"/\"\nfrom = \"there\"",
        "[[check]]\nget = \"/\"\nstatus = [\"20\"]",
        "[[check]]\nget = \"/\"\ntype = \"html\"",
        "[[check]]\nget = \"/\"\nleads-to = \"login\"",
        "[[check]]\npost = \"/\"\nbody = 1\nform = { a = \"b\" }",
        "[[check]]\npost = \"/\"\nform = { a = \"env:P\" }",
        "[[check]]\nget = \"/\"\nsend-headers = { authorization = \"x\" }",
        "[[check]]\npage = \"/\"\nget = \"/\"",
        "[[access]]\nallowed = \"anyone\"",
        "[[access]]\npaths = \"/\"",
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
    boolean read = FilesPeopleWriteTest.problems(folder, BASE + lines).isEmpty();
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
    assertThat(FilesPeopleWriteTest.problems(folder, text).isEmpty()).isEqualTo(right);
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
          folder = "x"\\nhttp = 1\\nadmin = 2\\nurl = "https://shop.example"      | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\nurl = "http://[::1]:8080/"       | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\nurl = "https://shop.example/a"    | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nurl = "https://a@shop.example"    | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nurl = "shop.example"              | false
          folder = "x"\\nhttp = 1\\nkind = "service"\\nurl = "https://shop.example"  | true
          folder = "x"\\nhttp = 0\\nadmin = 2                    | false
          http = 1\\nadmin = 2                                  | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nport = 3          | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nmemory = "much"   | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\njava-options = ["-Xss1m"]  | true
          folder = "x"\\nhttp = 1\\nadmin = 2\\njava-options = "Xss1m"     | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\njava-options = "-Xmx1g"    | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\njava-options = "-Dcatalina.base=x" | false
          folder = "x"\\nhttp = 1\\nkind = "service"             | true
          folder = "x"\\nhttp = 1\\nkind = "service"\\nlog-size = "2m"\\nlog-keep = 2\\nboot = "user" | true
          folder = "x"\\nhttp = 1\\nkind = "service"\\nadmin = 2   | false
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nlog = "l"\\nstart = ["a", "b"] | true
          folder = "x"\\nhttp = 1\\ninstallation = "x"\\nstart = "a"\\nboot = "user" | false
          folder = "x"\\nhttp = 1\\nkind = "service"\\nstart = "a" | false
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
          folder = "/x"\\nhttp = 1\\nkind = "service"\\nhost = "h"\\nurl = "https://h"\\n[host.h]\\nssh = "h" | true
          folder = "/x"\\nhttp = 1\\nkind = "service"\\nbeside = 2\\nhost = "h"\\n[server.a.front]\\nconfig = "c"\\nupstream = "u"\\nurl = "http://h:1"\\ntest = ["t"]\\nreload = ["r"]\\n[host.h]\\nssh = "h" | false
          folder = "/x"\\nhttp = 1\\nadmin = 2\\njava = { archive = "jdk.tar.gz" } | true
          folder = "/x"\\nhttp = 1\\nadmin = 2\\njava = { archive = "jdk.zip" } | false
          folder = "/x"\\nhttp = 1\\nadmin = 2\\njava = { home = "/jdk" } | false
          folder = "x"\\nhttp = 1\\nkind = "service"\\nbeside = 2  | false
          folder = "x"\\nhttp = 1\\nkind = true           | false
          folder = "x"\\nhttp = 1\\nkind = "service"\\nlog-size = "big" | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nboot = "never"   | false
          folder = "x"\\nhttp = 1\\nadmin = 2\\nlog-keep = 2     | false
          folder = "x"\\nhttp = 1\\nkind = "service"\\nbeside = 2\\n[server.a.front]\\nconfig = "c"\\nupstream = "u"\\nurl = "http://h:1"\\ntest = ["t"]\\nreload = ["r"] | true
          folder = "x"\\nhttp = 1\\nkind = "service"\\nbeside = 2\\n[server.a.front]\\nconfig = "c"\\nupstream = "u"\\nurl = "h:1"\\ntest = ["t"]\\nreload = ["r"] | false
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
          ssh = "app1"\\nssh-keep = "0s"                        | true
          ssh = "app1"\\nssh-keep = "long"                      | false
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
}

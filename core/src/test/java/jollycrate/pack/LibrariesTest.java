package jollycrate.pack;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.Opcodes;

/** A server's libraries stay out of a WAR and stand aside in an executable one. */
class LibrariesTest {
  private static final String SERVER = "org/apache/catalina/startup/Tomcat.class";

  @TempDir Path folder;

  private Project project() throws IOException {
    return new Project(folder).file("web/index.html", "<p>");
  }

  @ParameterizedTest
  @CsvSource({
    "jakarta/servlet/Servlet.class, the server provides jakarta.servlet",
    "javax/servlet/Servlet.class, the server provides javax.servlet",
    "jakarta/el/ELContext.class, the server provides jakarta.el",
    "jakarta/websocket/Session.class, the server provides jakarta.websocket",
    "jakarta/annotation/Resource.class, the server provides jakarta.annotation",
    "org/apache/catalina/startup/Tomcat.class, belongs to an embedded server",
    "org/eclipse/jetty/server/Server.class, belongs to an embedded server",
    "io/undertow/Undertow.class, belongs to an embedded server",
    "javax/annotation/Nonnull.class, ''",
    "jakarta/persistence/Entity.class, ''",
    "com/fasterxml/jackson/core/Version.class, ''",
    "META-INF/x.txt, ''"
  })
  void whatALibraryHoldsDecides(String entry, String reason) throws IOException {
    Packed packed = project().library("any-1.0.jar", entry, "META-INF/MANIFEST.MF").pack(Shape.WAR);
    List<String> reasons = packed.leftOut().stream().map(Packed.LeftOut::reason).toList();
    assertThat(reasons).isEqualTo(reason.isEmpty() ? List.of() : List.of(reason));
    assertThat(Project.names(packed).contains("WEB-INF/lib/any-1.0.jar"))
        .isEqualTo(reason.isEmpty());
  }

  @Test
  void oneClassOfItsOwnMakesALibraryTheProjects() throws IOException {
    Packed packed = project().library("both.jar", SERVER, "shop/Desk.class").pack(Shape.WAR);
    assertThat(Project.names(packed)).contains("WEB-INF/lib/both.jar");
  }

  @Test
  void whatIsAskedForIsKept() throws IOException {
    Packed packed =
        project()
            .library("tomcat-jdbc-1.jar", "org/apache/tomcat/jdbc/pool/DataSource.class")
            .library("tomcat-embed-1.jar", SERVER)
            .keeping("tomcat-jdbc-*.jar")
            .pack(Shape.WAR);
    assertThat(Project.names(packed))
        .contains("WEB-INF/lib/tomcat-jdbc-1.jar")
        .doesNotContain("WEB-INF/lib/tomcat-embed-1.jar");
  }

  @Test
  void whatIsLeftOutAndNeededIsForeseen() throws IOException {
    ClassWriter desk = new ClassWriter(0);
    desk.visit(Opcodes.V17, Opcodes.ACC_PUBLIC, "shop/Desk", null, "json/Json", null);
    desk.visitEnd();
    Packed packed =
        project()
            .file("classes/shop/Desk.class", desk.toByteArray())
            .library("json-1.jar", "json/Json.class")
            .library("unused-1.jar", "unused/Other.class")
            .leavingOut("WEB-INF/lib/*-1.jar")
            .pack(Shape.WAR);
    assertThat(packed.remarks())
        .containsExactly(
            new Packed.Remark(
                true,
                "json-1.jar is left out and needed; take it out of 'leave-out', unless the server"
                    + " has it",
                List.of("json.Json, needed by shop.Desk")));
    assertThat(
            project()
                .library("more-2.jar", "json/Json.class")
                .leavingOut("**/json-1.jar")
                .library("json-1.jar", "json/Json.class", "json/More.class")
                .pack(Shape.WAR)
                .remarks())
        .isEmpty();
  }

  @Test
  void anExecutableWarHasTheServerWhereAServerDoesNotLoadIt() throws IOException {
    Packed packed =
        project()
            .library("tomcat-embed-1.jar", SERVER)
            .library("json-1.jar", "json/Json.class")
            .alone("driver.jar", "db/Driver.class")
            .pack(Shape.EXECUTABLE_WAR);
    assertThat(packed.mainClass()).contains("jollycrate.standalone.Standalone");
    assertThat(Project.names(packed))
        .contains(
            "jollycrate/standalone/Standalone.class",
            "WEB-INF/standalone/classes/jollycrate/standalone/tomcat/EmbeddedTomcat.class",
            "WEB-INF/standalone/tomcat-embed-1.jar",
            "WEB-INF/standalone/driver.jar",
            "WEB-INF/lib/json-1.jar")
        .doesNotContain("WEB-INF/lib/tomcat-embed-1.jar");
    assertThat(Project.text(packed, "META-INF/MANIFEST.MF"))
        .contains("Main-Class: jollycrate.standalone.Standalone");
  }

  @Test
  void withoutAServerInsideItIsRefused() throws IOException {
    Project project = project().library("json-1.jar", "json/Json.class");
    assertThatThrownBy(() -> project.pack(Shape.EXECUTABLE_WAR))
        .hasMessageContaining("no library holds an embedded server");
  }

  @Test
  void twoVersionsOfOneLibraryAreRefused() throws IOException {
    Project project =
        project().library("json-1.2.jar", "json/A.class").library("json-1.3.jar", "json/A.class");
    assertThatThrownBy(() -> project.pack(Shape.WAR))
        .hasMessageContaining("both are json, in versions 1.2 and 1.3");
  }

  @Test
  void largeFilesArePackedInBlocksThatReadAsOne() throws IOException {
    byte[] text = "a bell, a brake and a wheel; ".repeat(200_000).getBytes();
    byte[] noise = new byte[3 * EntryReader.MOST + 17];
    new Random(7).nextBytes(noise);
    byte[] exact = new byte[2 * EntryReader.MOST];
    Packed packed =
        project()
            .file("web/text.txt", text)
            .file("web/noise.bin", noise)
            .file("web/exact.bin", exact)
            .file("web/empty.txt", "")
            .pack(Shape.WAR);
    assertThat(Project.content(packed, "text.txt")).isEqualTo(text);
    assertThat(Project.content(packed, "noise.bin")).isEqualTo(noise);
    assertThat(Project.content(packed, "exact.bin")).isEqualTo(exact);
    assertThat(Project.content(packed, "empty.txt")).isEmpty();
    assertThat(packed.size()).isLessThan(noise.length + 100_000);
  }
}

package jollycrate.artifact;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.objectweb.asm.AnnotationVisitor;
import org.objectweb.asm.ClassWriter;
import org.objectweb.asm.Opcodes;

/** An artifact tells the truth about itself, and a hostile one does no harm. */
class ArtifactReaderTest {
  private static final String WEB_XML = "WEB-INF/web.xml";

  @TempDir Path folder;
  private final Map<String, byte[]> entries = new LinkedHashMap<>();

  private ArtifactReaderTest entry(String name, String text) {
    entries.put(name, text.getBytes(StandardCharsets.UTF_8));
    return this;
  }

  private ArtifactReaderTest entry(String name, byte[] bytes) {
    entries.put(name, bytes);
    return this;
  }

  private Artifact read(String name) {
    try {
      return ArtifactReader.read(Files.write(folder.resolve(name), zip(entries)));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static byte[] zip(Map<String, byte[]> entries) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
      for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
        zip.putNextEntry(new ZipEntry(entry.getKey()));
        zip.write(entry.getValue());
      }
    }
    return bytes.toByteArray();
  }

  private static byte[] classFile(String name, int java, String parent) {
    ClassWriter writer = new ClassWriter(0);
    writer.visit(44 + java, Opcodes.ACC_PUBLIC, name, null, parent, null);
    writer.visitEnd();
    return writer.toByteArray();
  }

  private static byte[] classWithResource(
      String field, String type, String attribute, String value) {
    ClassWriter writer = new ClassWriter(0);
    writer.visit(Opcodes.V17, Opcodes.ACC_PUBLIC, "shop/Desk", null, "java/lang/Object", null);
    AnnotationVisitor annotation =
        writer
            .visitField(0, field, type, null, null)
            .visitAnnotation("Ljakarta/annotation/Resource;", true);
    if (!attribute.isEmpty()) {
      annotation.visit(attribute, value);
    }
    annotation.visitEnd();
    writer.visitEnd();
    return writer.toByteArray();
  }

  @ParameterizedTest
  @CsvSource({
    "a.war, WEB-INF/web.xml, '', WAR",
    "a.war, index.html, '', WAR",
    "a.jar, WEB-INF/classes/x.txt, '', WAR",
    "a.war, WEB-INF/x, Main-Class: shop.Main, EXECUTABLE_WAR",
    "a.jar, x.txt, Main-Class: shop.Main, EXECUTABLE_JAR",
    "a.ear, META-INF/application.xml, '', EAR",
    "a.zip, x.txt, '', ARCHIVE"
  })
  void theLayoutTellsTheKind(String file, String entry, String manifest, ArtifactKind kind) {
    entry("META-INF/MANIFEST.MF", "Manifest-Version: 1.0\n" + manifest + "\n");
    entry(entry, "<x/>");
    assertThat(read(file).kind()).isEqualTo(kind);
  }

  @Test
  void theHighestClassCountsButNoModuleAndNoOtherVersion() throws IOException {
    Map<String, byte[]> library =
        Map.of(
            "lib/New.class", classFile("lib/New", 21, "java/lang/Object"),
            "META-INF/versions/25/lib/New.class", classFile("lib/New", 25, "java/lang/Object"));
    entry("WEB-INF/classes/shop/Desk.class", classFile("shop/Desk", 11, "java/lang/Object"));
    entry("WEB-INF/classes/module-info.class", classFile("module-info", 25, null));
    entry("WEB-INF/lib/new.jar", zip(library));
    Artifact artifact = read("shop-1.2.war");
    assertThat(artifact.classes().java()).isEqualTo(21);
    assertThat(artifact.classes().highestClass()).isEqualTo("WEB-INF/lib/new.jar!/lib/New.class");
    assertThat(artifact.name() + " " + artifact.version()).isEqualTo("shop 1.2");
    assertThat(artifact.classes().ownPackages()).containsExactly("shop");
    assertThat(artifact.entries()).isEqualTo(3);
  }

  @Test
  void aFrameworksArchiveTellsItsStartEvenBehindAScript() throws IOException {
    entry("META-INF/MANIFEST.MF", "Main-Class: boot.Launcher\nStart-Class: shop.Desk\n");
    entry("boot/Launcher.class", classFile("boot/Launcher", 8, "java/lang/Object"));
    entry("BOOT-INF/classes/shop/Desk.class", classFile("shop/Desk", 17, "java/lang/Object"));
    entry("BOOT-INF/lib/deep.jar", zip(Map.of("a/B.class", classFile("a/B", 21, "a/C"))));
    byte[] script = "#!/bin/sh\nexec java -jar \"$0\"\n".getBytes(StandardCharsets.UTF_8);
    ByteArrayOutputStream whole = new ByteArrayOutputStream();
    whole.write(script);
    whole.write(zip(entries));
    Artifact artifact =
        ArtifactReader.read(Files.write(folder.resolve("desk"), whole.toByteArray()));
    assertThat(artifact.kind()).isEqualTo(ArtifactKind.EXECUTABLE_JAR);
    assertThat(artifact.start().startClass()).contains("shop.Desk");
    assertThat(artifact.layout().script()).isEqualTo(script.length);
    assertThat(artifact.layout().libraries())
        .extracting(Artifact.Library::path)
        .containsExactly("BOOT-INF/lib/deep.jar");
    assertThat(artifact.classes().highestClass()).isEqualTo("BOOT-INF/lib/deep.jar!/a/B.class");
    assertThat(artifact.faults()).isEmpty();
  }

  @Test
  void servletMappingsAreEndpointsWithTheirPlace() throws IOException {
    String descriptor =
        """
        <web-app><servlet><servlet-name>a</servlet-name><servlet-class>shop.A</servlet-class></servlet>
        <servlet-mapping><servlet-name>a</servlet-name>
          <url-pattern>/a</url-pattern><url-pattern>/b/*</url-pattern></servlet-mapping></web-app>
        """;
    entry(WEB_XML, descriptor);
    ClassWriter writer = new ClassWriter(0);
    writer.visit(Opcodes.V17, Opcodes.ACC_PUBLIC, "shop/Z", null, "java/lang/Object", null);
    AnnotationVisitor annotation =
        writer.visitAnnotation("Ljakarta/servlet/annotation/WebServlet;", true);
    AnnotationVisitor patterns = annotation.visitArray("urlPatterns");
    patterns.visit(null, "/z");
    patterns.visitEnd();
    annotation.visitEnd();
    writer.visitEnd();
    entry("WEB-INF/classes/shop/Z.class", writer.toByteArray());
    String fragment = descriptor.replace("web-app", "web-fragment").replace("/a<", "/part<");
    entry(
        "WEB-INF/lib/part.jar",
        zip(Map.of("META-INF/web-fragment.xml", fragment.getBytes(StandardCharsets.UTF_8))));
    assertThat(read("shop.war").web().endpoints())
        .containsExactly(
            new Artifact.Endpoint("/a", "shop.A", "WEB-INF/web.xml:3"),
            new Artifact.Endpoint("/b/*", "shop.A", "WEB-INF/web.xml:3"),
            new Artifact.Endpoint(
                "/b/*", "shop.A", "WEB-INF/lib/part.jar!/META-INF/web-fragment.xml:3"),
            new Artifact.Endpoint(
                "/part", "shop.A", "WEB-INF/lib/part.jar!/META-INF/web-fragment.xml:3"),
            new Artifact.Endpoint("/z", "shop.Z", "WEB-INF/classes/shop/Z.class"));
  }

  @ParameterizedTest
  @CsvSource({
    "javax/servlet/http/HttpServlet, JAVAX",
    "jakarta/servlet/http/HttpServlet, JAKARTA",
    "java/lang/Object, NONE"
  })
  void theBytecodeTellsTheServletApi(String parent, ServletNamespace namespace) {
    entry("WEB-INF/classes/shop/Desk.class", classFile("shop/Desk", 17, parent));
    assertThat(read("shop.war").web().namespace()).isEqualTo(namespace);
  }

  @ParameterizedTest
  @CsvSource({
    "filter, javax, JAVAX, WEB-INF/web.xml:1: their.Part in WEB-INF/lib/a.jar",
    "listener, jakarta, JAKARTA, WEB-INF/web.xml:1: their.Part in WEB-INF/lib/a.jar",
    "context-param, javax, NONE, ''"
  })
  void whatADescriptorStartsFromALibraryTellsTheServletApi(
      String kind, String api, ServletNamespace namespace, String seen) throws IOException {
    entry(
        WEB_XML,
        "<web-app><%1$s><%1$s-class>their.Part</%1$s-class></%1$s></web-app>".formatted(kind));
    entry(
        "WEB-INF/lib/a.jar",
        zip(
            Map.of(
                "their/Part.class",
                classFile("their/Part", 8, "their/Base"),
                "their/Base.class",
                classFile("their/Base", 8, api + "/servlet/GenericServlet"))));
    Artifact artifact = read("shop.war");
    assertThat(artifact.web().namespace()).isEqualTo(namespace);
    assertThat(artifact.web().servlets().uses())
        .extracting(ServletApi.Use::seen)
        .isEqualTo(seen.isEmpty() ? List.of() : List.of(seen));
  }

  @ParameterizedTest
  @CsvSource({"their.Start, JAVAX", "ch.qos.logback.Start, NONE"})
  void whatStartsWithoutADescriptorTellsTheServletApi(String provider, ServletNamespace namespace)
      throws IOException {
    byte[] service = provider.getBytes(StandardCharsets.UTF_8);
    entry(
        "WEB-INF/lib/a.jar",
        zip(Map.of("META-INF/services/javax.servlet.ServletContainerInitializer", service)));
    assertThat(read("shop.war").web().namespace()).isEqualTo(namespace);
  }

  @Test
  void theWebModulesOfAnEarTellItsServletApi() throws IOException {
    byte[] desk = classFile("shop/Desk", 8, "javax/servlet/http/HttpServlet");
    entry("shop.war", zip(Map.of("WEB-INF/classes/shop/Desk.class", desk)));
    assertThat(read("shop.ear").web().servlets().uses())
        .containsExactly(
            new ServletApi.Use(
                ServletNamespace.JAVAX, "shop.war!/WEB-INF/classes/shop/Desk.class", false));
  }

  @Test
  void whatJavaHasNoLongerIsMissingUnlessALibraryBringsIt() throws IOException {
    entry("WEB-INF/classes/shop/Desk.class", classFile("shop/Desk", 8, "javax/xml/bind/Binder"));
    assertThat(read("shop.war").classes().missing())
        .containsExactly(Map.entry("javax/xml/bind/", "WEB-INF/classes/shop/Desk.class"));
    byte[] binder = classFile("javax/xml/bind/Binder", 8, "java/lang/Object");
    entry("WEB-INF/lib/bind.jar", zip(Map.of("javax/xml/bind/Binder.class", binder)));
    assertThat(read("shop.war").classes().missing()).isEmpty();
  }

  @Test
  void anArchiveAmongResourcesIsNoLibrary() {
    entry("shop/Desk.class", classFile("shop/Desk", 8, "java/lang/Object"));
    entry("templates/gradle-wrapper.jar", "");
    assertThat(read("shop.jar").faults()).isEmpty();
    entry("BOOT-INF/lib/broken.jar", "");
    assertThat(read("shop.jar").faults()).singleElement().asString().contains("broken.jar");
  }

  @Test
  void theDescriptorTellsDataSourcesAndRoles() {
    entry(
        WEB_XML,
        """
        <web-app xmlns="https://jakarta.ee/xml/ns/jakartaee">
          <resource-ref><res-ref-name>jdbc/a</res-ref-name>
            <res-type>javax.sql.DataSource</res-type></resource-ref>
          <resource-ref><res-ref-name>mail/x</res-ref-name>
            <res-type>jakarta.mail.Session</res-type></resource-ref>
          <security-constraint><auth-constraint><role-name>clerk</role-name>
            <role-name>*</role-name></auth-constraint></security-constraint>
          <security-role><role-name>owner</role-name></security-role>
        </web-app>
        """);
    Artifact artifact = read("shop.war");
    assertThat(artifact.web().dataSources())
        .containsExactly(new Artifact.Declared("jdbc/a", "WEB-INF/web.xml:2"));
    assertThat(artifact.web().roles()).containsExactly("clerk", "owner");
  }

  @ParameterizedTest
  @CsvSource({
    "Ljavax/sql/DataSource;, name, jdbc/b, jdbc/b",
    "Ljavax/sql/DataSource;, lookup, java:comp/env/jdbc/c, jdbc/c",
    "Ljavax/sql/DataSource;, '', '', shop.Desk/source",
    "Ljavax/sql/DataSource;, lookup, java:global/x, ''",
    "Ljava/lang/String;, name, jdbc/b, ''"
  })
  void annotationsTellDataSources(String type, String attribute, String value, String expected) {
    entry("WEB-INF/classes/shop/Desk.class", classWithResource("source", type, attribute, value));
    assertThat(read("shop.war").web().dataSources())
        .extracting(Artifact.Declared::name)
        .isEqualTo(expected.isEmpty() ? List.of() : List.of(expected));
  }

  @Test
  void anEntityIsNeverReadFromOutside() throws IOException {
    Path secret = Files.writeString(folder.resolve("secret"), "jdbc/stolen");
    entry(
        WEB_XML,
        "<!DOCTYPE web-app [<!ENTITY x SYSTEM \""
            + secret.toUri()
            + "\">]><web-app><resource-ref>"
            + "<res-ref-name>&x;</res-ref-name></resource-ref></web-app>");
    Artifact artifact = read("shop.war");
    assertThat(artifact.toString()).doesNotContain("stolen");
  }

  @ParameterizedTest
  @CsvSource({"../outside.txt", "/etc/x", "a/../../x", "C:x", "a\\b"})
  void anEntryThatPointsOutsideIsNamed(String name) {
    assertThat(entry(name, "x").read("shop.war").faults())
        .containsExactly("entry '" + name + "' points outside the archive");
  }

  @Test
  void whatIsBrokenInsideIsNamedWithItsPlace() {
    entry(WEB_XML, "<web-app>\n<a></b></web-app>");
    entry("WEB-INF/classes/Bad.class", "no class");
    entry("WEB-INF/lib/bad.jar", "no archive");
    assertThat(read("shop.war").faults())
        .anyMatch(fault -> fault.startsWith("WEB-INF/web.xml:2:"))
        .contains("'WEB-INF/classes/Bad.class' is no class file")
        .anyMatch(
            fault -> fault.startsWith("library 'WEB-INF/lib/bad.jar' is no readable archive"));
  }

  @Test
  void aCutArchiveIsRefused() throws IOException {
    byte[] whole = zip(Map.of("a.txt", new byte[2000]));
    Path cut = Files.write(folder.resolve("cut.war"), java.util.Arrays.copyOf(whole, 100));
    assertThatThrownBy(() -> ArtifactReader.read(cut))
        .isInstanceOf(ArtifactException.class)
        .hasMessageContaining("Cannot read '" + cut + "' as an archive");
    assertThatThrownBy(() -> ArtifactReader.read(folder)).hasMessageContaining("it is a folder");
  }

  @Test
  void whatElseItNeedsIsSaid() throws IOException {
    Map<String, byte[]> web = new LinkedHashMap<>();
    web.put(
        WEB_XML,
        """
        <web-app>
          <resource-ref><res-ref-name>mail/Session</res-ref-name><res-type>jakarta.mail.Session</res-type></resource-ref>
          <resource-ref><res-ref-name>jdbc/spokes</res-ref-name></resource-ref>
          <resource-env-ref><resource-env-ref-name>jms/bells</resource-env-ref-name>
            <resource-env-ref-type>jakarta.jms.Queue</resource-env-ref-type></resource-env-ref>
          <servlet><servlet-name>desk</servlet-name><servlet-class>spokes.Desk</servlet-class></servlet>
          <servlet><servlet-name>gone</servlet-name><servlet-class>spokes.Gone</servlet-class></servlet>
        </web-app>
        """
            .getBytes(StandardCharsets.UTF_8));
    web.put(
        "WEB-INF/classes/spokes/Desk.class",
        classFile("spokes/Desk", 17, "org/eclipse/jetty/servlet/DefaultServlet"));
    entries.putAll(web);
    Artifact war = read("spokes.war");
    assertThat(war.web().resources())
        .containsExactly(
            new Artifact.Resource("mail/Session", "jakarta.mail.Session", WEB_XML + ":2"),
            new Artifact.Resource("jms/bells", "jakarta.jms.Queue", WEB_XML + ":4"));
    assertThat(war.classes().absent()).containsExactly(Map.entry("spokes.Gone", WEB_XML + ":7"));
    assertThat(war.classes().missing())
        .containsExactly(Map.entry("org/eclipse/jetty/", "WEB-INF/classes/spokes/Desk.class"));
    entries.clear();
    Artifact ear = entry("shop.war", zip(web)).read("spokes.ear");
    assertThat(ear.web().dataSources())
        .containsExactly(new Artifact.Declared("jdbc/spokes", "shop.war!/" + WEB_XML + ":3"));
    assertThat(ear.web().resources()).hasSize(2);
    entries.clear();
    entry("WEB-INF/lib/jetty.jar", zip(Map.of("org/eclipse/jetty/servlet/X.class", new byte[8])));
    entries.putAll(web);
    assertThat(read("spokes.war").classes().missing()).isEmpty();
  }
}

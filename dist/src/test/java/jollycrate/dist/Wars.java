package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.Servlet;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.tools.JavaCompiler;
import javax.tools.ToolProvider;

/** Builds small web applications for a test. */
final class Wars {
  private static final String HEAD =
      "<web-app xmlns=\"https://jakarta.ee/xml/ns/jakartaee\" version=\"6.0\">";

  private final Path folder;
  private final Map<String, byte[]> entries = new LinkedHashMap<>();
  private String namespace = "jakarta";

  private Wars(Path folder) {
    this.folder = folder;
  }

  /** An application whose descriptor holds these elements. */
  static Wars with(Path folder, String... elements) {
    Wars war = new Wars(folder);
    return war.entry("WEB-INF/web.xml", HEAD + String.join("\n", elements) + "</web-app>");
  }

  /** From now on its sources, written for jakarta.servlet, use that namespace. */
  Wars using(String other) {
    namespace = other;
    return this;
  }

  static Wars empty(Path folder) {
    return new Wars(folder);
  }

  Wars entry(String name, String text) {
    entries.put(name, text.getBytes());
    return this;
  }

  Wars entry(String name, byte[] content) {
    entries.put(name, content);
    return this;
  }

  /** Compiles a class of package {@code shop}; classes named by {@code without} are left out. */
  Wars source(String name, String body, String... without) throws IOException {
    Path sources = Files.createTempDirectory(folder, "source");
    Path file = sources.resolve("shop/" + name + ".java");
    Files.createDirectories(file.getParent());
    Files.writeString(file, "package shop;\n" + body.replace("jakarta.", namespace + "."));
    JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
    Path classes = Files.createTempDirectory(folder, "classes");
    int result =
        compiler.run(
            null,
            null,
            null,
            "-g",
            "-cp",
            servletApis(),
            "-d",
            classes.toString(),
            file.toString());
    assertThat(result).isZero();
    try (Stream<Path> compiled = Files.walk(classes)) {
      for (Path path : compiled.filter(Files::isRegularFile).toList()) {
        String entry = "WEB-INF/classes/" + classes.relativize(path);
        if (!List.of(without).contains(path.getFileName().toString())) {
          entries.put(entry, Files.readAllBytes(path));
        }
      }
    }
    return this;
  }

  private static String servletApis() {
    return Stream.of(Servlet.class, javax.servlet.Servlet.class)
        .map(api -> api.getProtectionDomain().getCodeSource().getLocation().getPath())
        .collect(Collectors.joining(File.pathSeparator));
  }

  Path write(String name) throws IOException {
    Path file = folder.resolve(name);
    try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(file))) {
      for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
        zip.putNextEntry(new ZipEntry(entry.getKey()));
        zip.write(entry.getValue());
      }
    }
    return file;
  }

  static String listener(String name) {
    return "<listener><listener-class>shop." + name + "</listener-class></listener>";
  }

  static String servlet(String name, String pattern) {
    return "<servlet><servlet-name>s</servlet-name><servlet-class>shop."
        + name
        + "</servlet-class></servlet><servlet-mapping><servlet-name>s</servlet-name><url-pattern>"
        + pattern
        + "</url-pattern></servlet-mapping>";
  }

  /** A listener that does something when the application starts. */
  static String listenerSource(String name, String statement) {
    return """
        public class %s implements jakarta.servlet.ServletContextListener {
          @Override public void contextInitialized(jakarta.servlet.ServletContextEvent event) {
            %s
          }
        }
        """
        .formatted(name, statement);
  }

  /** A servlet that answers with a text. */
  static String servletSource(String name, String statement) {
    return """
        public class %s extends jakarta.servlet.http.HttpServlet {
          @Override protected void doGet(jakarta.servlet.http.HttpServletRequest request,
              jakarta.servlet.http.HttpServletResponse response) throws java.io.IOException {
            %s
          }
        }
        """
        .formatted(name, statement);
  }

  /** A statement that makes one file and waits for another. */
  static String waiting(Path begun, Path gate) {
    return """
        try {
          java.nio.file.Files.createFile(java.nio.file.Path.of("%s"));
          while (!java.nio.file.Files.exists(java.nio.file.Path.of("%s"))) {
            Thread.onSpinWait();
          }
        } catch (java.io.IOException e) {
          throw new java.io.UncheckedIOException(e);
        }
        """
        .formatted(begun, gate);
  }
}

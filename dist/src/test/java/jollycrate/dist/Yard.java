package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import java.util.jar.Attributes;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.jar.Manifest;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import jollycrate.ssh.Sshd;

/** A folder with a program and a service for it; closing it stops the service. */
final class Yard implements AutoCloseable {
  /** Opens its port, says so, and answers every request with a text. */
  static final String ANSWERS =
      """
      static void serve(int port, String text) throws Exception {
        var server = com.sun.net.httpserver.HttpServer.create(
            new java.net.InetSocketAddress("127.0.0.1", port), 0);
        server.createContext("/", exchange -> {
          byte[] body = text.getBytes("UTF-8");
          exchange.sendResponseHeaders(200, body.length);
          exchange.getResponseBody().write(body);
          exchange.close();
        });
        server.setExecutor(java.util.concurrent.Executors.newCachedThreadPool());
        server.start();
        System.out.println("open at " + port);
      }
      """;

  private static final Duration LIMIT = Duration.ofSeconds(300);
  private static final long LOOK_NANOS = 10_000_000;

  final Path folder;
  final Path server;
  final int http;
  final Program program;

  private Yard(Path folder, Program program) {
    this.folder = folder;
    this.server = folder.resolve("servers/yard");
    this.http = Workshop.freePort();
    this.program = program.with("BELL_PASSWORD", "ding-dong: é\\\"#5");
  }

  /** With its service on a machine 'app1'; the program listens where its argument says. */
  static Yard beside(Sshd sshd, Path folder, String main) throws IOException {
    Yard yard = new Yard(folder, Program.beside(sshd, folder));
    yard.pack("app.jar", main);
    yard.describe("[program]", "port = { argument = \"{value}\" }");
    String[] place = {"--host", "app1", "--folder", yard.server.toString()};
    yard.ok(
        "server",
        "new",
        "yard",
        "--kind",
        "service",
        "--http",
        "" + yard.http,
        place[0],
        place[1],
        place[2],
        place[3]);
    return yard;
  }

  /** With a program {@code app.jar} whose main method does that. */
  static Yard with(Path folder, String main, String... lines) throws IOException {
    Yard yard = new Yard(folder, new Program(folder));
    yard.pack("app.jar", main);
    yard.describe(lines);
    yard.ok("server", "new", "yard", "--kind", "service", "--http", "" + yard.http);
    Workshop.startsLightly(folder.resolve("servers.toml"));
    return yard;
  }

  /** The description, over a name and an artifact. */
  Yard describe(String... lines) throws IOException {
    String head = "name = \"yard\"\nartifact = \"app.jar\"\n";
    Files.writeString(folder.resolve("jolly.toml"), head + String.join("\n", lines) + "\n");
    return this;
  }

  /** Packs a class {@code yard.Main} with that main method as an executable archive. */
  Path pack(String name, String main) throws IOException {
    Path work = Files.createTempDirectory(folder, "work");
    Path source = work.resolve("Main.java");
    String text =
        "package yard;\npublic class Main {\n"
            + ANSWERS
            + "public static void main(String[] args) throws Exception {\n"
            + main
            + "\n}}\n";
    Files.writeString(source, text);
    Path classes = Files.createDirectory(work.resolve("classes"));
    int result =
        ToolProvider.getSystemJavaCompiler()
            .run(null, null, null, "-g", "-d", classes.toString(), source.toString());
    assertThat(result).isZero();
    Manifest manifest = new Manifest();
    manifest.getMainAttributes().put(Attributes.Name.MANIFEST_VERSION, "1.0");
    manifest.getMainAttributes().put(Attributes.Name.MAIN_CLASS, "yard.Main");
    Path file = folder.resolve(name);
    try (JarOutputStream jar = new JarOutputStream(Files.newOutputStream(file), manifest);
        Stream<Path> compiled = Files.walk(classes)) {
      for (Path path : compiled.filter(Files::isRegularFile).toList()) {
        jar.putNextEntry(new JarEntry(classes.relativize(path).toString()));
        jar.write(Files.readAllBytes(path));
      }
    }
    return file;
  }

  String ok(String... args) {
    return ends(0, args).out();
  }

  Program.Run ends(int exit, String... args) {
    return program.ends(exit, args);
  }

  String page(String path) throws IOException {
    return Pages.get("http://127.0.0.1:" + http + path);
  }

  boolean answers() {
    try {
      return page("/").startsWith("200");
    } catch (IOException e) {
      return false;
    }
  }

  /** Process id of the program on the service's port, as it noted it. */
  long program() throws IOException {
    return Long.parseLong(note(server.resolve("state/" + http + ".pid")));
  }

  /** Process id of the keeper. */
  long keeper() throws IOException {
    return Long.parseLong(note(server.resolve(".jolly/process.pid")));
  }

  private static String note(Path file) throws IOException {
    return Files.readString(file).strip().split(" ")[0];
  }

  /** Whether it runs; one that ended may wait as a zombie for somebody to ask. */
  static boolean runs(long pid) {
    try {
      String stat = Files.readString(Path.of("/proc/" + pid + "/stat"));
      return stat.charAt(stat.lastIndexOf(')') + 2) != 'Z';
    } catch (IOException ended) {
      return false;
    }
  }

  static void kill(long pid) {
    ProcessHandle.of(pid).ifPresent(ProcessHandle::destroyForcibly);
  }

  /** Waits for something that is to come about. */
  static void until(String what, BooleanSupplier fact) {
    long end = System.nanoTime() + LIMIT.toNanos();
    while (!fact.getAsBoolean()) {
      assertThat(System.nanoTime()).as("waiting for " + what).isLessThan(end);
      LockSupport.parkNanos(LOOK_NANOS);
    }
  }

  /** Waits until a file holds a text. */
  static void untilTold(Path file, String text) {
    until(
        text,
        () -> {
          try {
            return Files.readString(file).contains(text);
          } catch (IOException notYet) {
            return false;
          }
        });
  }

  /** The program's process ends a moment before the keeper writes how. */
  void untilKeeperTellsThatItWasKilled() {
    untilTold(server.resolve("state/events"), " code 137");
  }

  /** Every path below the service's folder but logs, state and records, with its content. */
  Trace trace() throws IOException {
    try (Stream<Path> files = Files.walk(server)) {
      return Trace.of(
          files
              .filter(
                  path ->
                      Stream.of(".jolly", "log", "state", "data")
                          .noneMatch(name -> path.startsWith(server.resolve(name))))
              .map(Yard::told)
              .toList());
    }
  }

  private static String told(Path path) {
    try {
      String mode = Files.getPosixFilePermissions(path).toString();
      int content = Files.isDirectory(path) ? 0 : Arrays.hashCode(Files.readAllBytes(path));
      return path + " " + mode + " " + content;
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  @Override
  public void close() {
    program.run("server", "stop", "yard");
  }
}

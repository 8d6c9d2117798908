package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.locks.LockSupport;
import java.util.function.Predicate;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** A copy of the sample with a server of its own; closing it stops the server. */
final class Workshop implements AutoCloseable {
  static final String DATABASE_PASSWORD = "oil-and-chain-7";
  static final String OWNER_PASSWORD = "front-light-3";
  static final String MECHANIC_PASSWORD = "freewheel&hub";

  /** A WildFly has it for a moment at the end of its start, and leaves it if it is stopped then. */
  private static final long LOOK_AGAIN_NANOS = 200_000;

  private static final String BOOTING = "configuration/standalone.xml.boot";

  private static final Pattern PID = Pattern.compile("\"pid\":(\\d+),\"ticks\":(\\d+)");

  private static final AtomicInteger NEXT_PORT = new AtomicInteger(21_000);
  private static final int LAST_PORT = 30_000;
  private static final Duration SETTLES_WITHIN = Duration.ofSeconds(120);
  private static final Duration KILLED_WITHIN = Duration.ofSeconds(300);
  private static final int KILLED = 128 + 9;

  final Path folder;
  final Path server;
  final int http;
  final int admin;
  final Program program;

  private Workshop(Path folder) throws IOException {
    this.folder = folder;
    this.server = folder.resolve("servers/bench");
    this.http = freePort();
    this.admin = freePort();
    this.program = deskOf(folder);
  }

  /** The program as somebody who knows every password uses it in a project. */
  static Program deskOf(Path project) {
    return new Program(project)
        .with("SPOKES_DB_PASSWORD", DATABASE_PASSWORD)
        .with("ROBIN_PASSWORD", OWNER_PASSWORD)
        .with("MIA_PASSWORD", MECHANIC_PASSWORD);
  }

  static Workshop open(Path parent) throws IOException {
    return open(parent, new String[0]);
  }

  /** With more options for the making of its server. */
  static Workshop open(Path parent, String... options) throws IOException {
    return withUsers(parent, options)
        .drop(
            "\\[users]\\n(?:\\w.*\\n)+\\n\\[roles]\\n(?:\\w.*\\n)+\\n\\[logins]\\n(?:\\w.*\\n)+\\n");
  }

  /** The same with users, whose hashes cost half of a delivery. */
  static Workshop withUsers(Path parent, String... options) throws IOException {
    return withUsers(parent, true, options);
  }

  /** The same, on a server that may have no admin listener. */
  static Workshop withUsers(Path parent, boolean admin, String... options) throws IOException {
    return withPeople(parent, admin, options).without("the owner reads the ledger").withoutAccess();
  }

  /** The same, with checks for which people log in: each costs a core for a second. */
  static Workshop withPeople(Path parent, String... options) throws IOException {
    return withPeople(parent, true, options);
  }

  private static Workshop withPeople(Path parent, boolean admin, String... options)
      throws IOException {
    Workshop workshop = new Workshop(copySample("spokes", parent));
    List<String> command = new ArrayList<>(List.of("server", "new", "bench"));
    command.addAll(List.of("--http", "" + workshop.http));
    if (admin) {
      command.addAll(List.of("--admin", "" + workshop.admin));
    }
    command.addAll(List.of(options));
    workshop.ok(command.toArray(String[]::new));
    startsLightly(workshop.folder.resolve("servers.toml"));
    return workshop
        .edit("within = \"10s\"", "within = \"60s\"")
        .without("a mechanic leaves a photo")
        .drop("\\[\\[access]]\\npaths   = \\[\"/counter/photos\"](?:.*\\n){3}");
  }

  private Workshop without(String check) throws IOException {
    return drop("\\[\\[check]]\\nname +?= \"" + check + "\"[^\\[]*");
  }

  private Workshop withoutAccess() throws IOException {
    return drop("\\[\\[access]][^\\n]*\\n(?:\\w.*\\n)+\\n")
        .drop("\\[\\[access]][^\\n]*\\n(?:\\w.*\\n)+\\n");
  }

  private Workshop drop(String pattern) throws IOException {
    Path description = folder.resolve("jolly.toml");
    String text = Files.readString(description);
    String fewer = text.replaceFirst(pattern, "");
    assertThat(fewer).isNotEqualTo(text);
    Files.writeString(description, fewer);
    return this;
  }

  /** Has the server described last compile less, as it does not live long. */
  static void startsLightly(Path servers) throws IOException {
    Files.writeString(
        servers,
        "java-options = [\"-XX:TieredStopAtLevel=1\", \"-XX:+UseSerialGC\"]\n",
        StandardOpenOption.APPEND);
  }

  /** A copy of a sample. */
  static Path copySample(String name, Path parent) throws IOException {
    Path folder = parent.resolve(name);
    Path sample = Program.HOME.resolve("samples").resolve(name);
    try (Stream<Path> files = Files.walk(sample)) {
      for (Path file : files.toList()) {
        Files.copy(file, folder.resolve(sample.relativize(file).toString()));
      }
    }
    return folder;
  }

  /** Makes a copied description name the server's folder from wherever it stands. */
  static void retarget(Path servers, Path server) throws IOException {
    String text = Files.readString(servers);
    Files.writeString(
        servers, text.replaceFirst("(?m)^folder = .*$", "folder = \"" + server + "\""));
  }

  /** A port that nobody has, never given out twice. */
  static int freePort() {
    while (true) {
      int port = NEXT_PORT.getAndIncrement();
      try (ServerSocket socket = new ServerSocket(port, 1, InetAddress.getLoopbackAddress())) {
        return socket.getLocalPort();
      } catch (IOException taken) {
        assertThat(port).isLessThan(LAST_PORT);
      }
    }
  }

  /** Runs a command that must succeed. */
  String ok(String... args) {
    return ends(0, args).out();
  }

  /** Runs a command that must end with an exit code. */
  Program.Run ends(int exit, String... args) {
    return program.ends(exit, args);
  }

  /** Kills a delivery of the sample as soon as its journal is such. */
  void kill(Predicate<String> when) throws IOException, InterruptedException {
    kill(when, "deploy", "--to", "bench");
  }

  /** The same of another one. */
  void kill(Predicate<String> when, String... command) throws IOException, InterruptedException {
    Path journal = server.resolve(".jolly/journal.jsonl");
    String earlier = Files.exists(journal) ? Files.readString(journal) : "";
    Process process =
        program.start(folder.resolve("killed.out"), folder.resolve("killed.err"), command);
    long until = System.nanoTime() + KILLED_WITHIN.toNanos();
    while (process.isAlive() && System.nanoTime() < until) {
      String text = Files.exists(journal) ? Files.readString(journal) : "";
      if (!text.equals(earlier) && when.test(text)) {
        break;
      }
      LockSupport.parkNanos(LOOK_AGAIN_NANOS);
    }
    process.destroyForcibly();
    assertThat(process.waitFor(10, TimeUnit.SECONDS)).isTrue();
    assertThat(process.exitValue()).as("killed in time").isEqualTo(KILLED);
  }

  Workshop edit(String from, String to) throws IOException {
    return edit(folder.resolve("jolly.toml"), from, to);
  }

  Workshop edit(Path file, String from, String to) throws IOException {
    String text = Files.readString(file);
    assertThat(text).contains(from);
    Files.writeString(file, text.replace(from, to));
    return this;
  }

  /** Status and body of a page of the main listener. */
  String page(String path) throws IOException {
    return page(http, path);
  }

  String page(int port, String path) throws IOException {
    return Pages.get("http://127.0.0.1:" + port + path);
  }

  /** The same for somebody who says who he is. */
  String pageFor(String user, String password, String path) throws IOException {
    return Pages.get("http://127.0.0.1:" + http + path, user, password);
  }

  /** What a path answers when it is asked for by way of a web server that is known by a name. */
  String statusFor(String host, String path) throws IOException {
    try (Socket socket = new Socket("127.0.0.1", http)) {
      String asked = "GET " + path + " HTTP/1.1\r\nHost: " + host + "\r\nConnection: close\r\n\r\n";
      socket.getOutputStream().write(asked.getBytes(StandardCharsets.US_ASCII));
      byte[] answer = socket.getInputStream().readAllBytes();
      return new String(answer, StandardCharsets.UTF_8).split(" ", 3)[1];
    }
  }

  /** Every path of the server's folder, told by a script that knows nothing of us. */
  Trace trace() throws IOException {
    return trace(server);
  }

  /** A server notes what it deployed a moment after that answers; then every path is as before. */
  void settlesAs(Trace before) throws IOException {
    long until = System.nanoTime() + SETTLES_WITHIN.toNanos();
    while (!trace().equals(before) && System.nanoTime() < until) {
      LockSupport.parkNanos(LOOK_AGAIN_NANOS);
    }
    trace().isAs(before);
  }

  /** The same of any server's folder. */
  static Trace trace(Path server, String... more) throws IOException {
    Path script = Files.createTempFile("trace", ".sh");
    try (InputStream in = Workshop.class.getResourceAsStream("/trace.sh")) {
      Files.write(script, in.readAllBytes());
    }
    List<String> command =
        new ArrayList<>(Arrays.asList("sh", script.toString(), server.toString()));
    command.addAll(List.of(".jolly", "logs", "temp", "tmp", "work", "state", "data", BOOTING));
    command.addAll(List.of(more));
    Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
    String text = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    Files.delete(script);
    return Trace.of(text.lines().toList());
  }

  /** Process id and start ticks of the server, as its record tells. */
  String process() throws IOException {
    Matcher matcher = PID.matcher(Files.readString(server.resolve(".jolly/process.json")));
    return matcher.find() ? matcher.group(1) + " " + matcher.group(2) : "none";
  }

  /** Processes that run on the server's folder. */
  List<Long> processes() {
    return ProcessHandle.allProcesses()
        .filter(handle -> argumentsOf(handle.pid()).contains("=" + server + "/"))
        .filter(handle -> argumentsOf(handle.pid()).contains("-Djolly.token="))
        .map(ProcessHandle::pid)
        .toList();
  }

  static String argumentsOf(long pid) {
    try {
      return Files.readString(Path.of("/proc/" + pid + "/cmdline"));
    } catch (IOException e) {
      return "";
    }
  }

  String log() throws IOException {
    return Files.readString(server.resolve("logs/server.log"));
  }

  private static boolean isOpen(Path path) throws IOException {
    return Files.getPosixFilePermissions(path).stream()
        .anyMatch(one -> !one.name().startsWith("OWNER"));
  }

  /** Secrets stand where nobody but the server's user comes to, and in no record or log. */
  private void mustKeepSecrets() {
    List<String> secrets = program.secretForms();
    try (Stream<Path> files = Files.walk(server)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        String text = Files.readString(file, StandardCharsets.ISO_8859_1);
        boolean open = true;
        for (Path way = file; open && !way.equals(server); way = way.getParent()) {
          open = isOpen(way);
        }
        boolean told = file.startsWith(server.resolve(".jolly")) || file.toString().contains("log");
        if (open || told) {
          assertThat(secrets.stream().filter(text::contains)).as("%s", file).isEmpty();
        }
      }
    } catch (IOException | UncheckedIOException goneMeanwhile) {
      assertThat(goneMeanwhile).hasMessageContaining(server.toString());
    }
  }

  @Override
  public void close() {
    mustKeepSecrets();
    program.run("server", "stop", "bench");
    processes().forEach(pid -> ProcessHandle.of(pid).ifPresent(ProcessHandle::destroyForcibly));
  }
}

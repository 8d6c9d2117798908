package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Programs that run by themselves: delivered, configured, kept alive, proven and replaced. */
class ServiceIT {
  private static final String PORT =
      "[program]\nport = { argument = \"{value}\" }\nrestart = \"never\"";
  private static final String SERVES = "serve(Integer.parseInt(args[0]), \"bell 1\");";

  @TempDir Path folder;

  @Test
  void aProgramWithSettingsOfItsOwnComesAndGoesWithoutATrace() throws IOException {
    String reads =
        """
        var settings = new java.util.Properties();
        settings.load(new java.io.FileInputStream("conf/bell.properties"));
        serve(Integer.parseInt(settings.getProperty("bell.port")),
            settings.getProperty("greeting") + " " + settings.getProperty("pass").length()
                + " " + System.getenv("TONE") + " " + System.getProperty("bind"));
        """;
    String[] described = {
      "[settings]",
      "greeting = \"räder & <\\\\u>\"",
      "pass = \"env:BELL_PASSWORD\"",
      "[program]",
      "port = { setting = \"bell.port\" }",
      "address = { property = \"bind\" }",
      "settings-file = \"conf/bell.properties\"",
      "variables = { TONE = \"a = b\" }",
      "[[check]]",
      "name = \"it greets\"",
      "get = \"/\"",
      "text = \"räder & <\\\\u> 16 a = b\"",
      "[for.yard.settings]",
      "greeting = \"räder & <\\\\u>\""
    };
    try (Yard yard = Yard.with(folder, reads, described)) {
      Trace before = yard.trace();
      Program.Run first = yard.ends(0, "deploy", "--to", "yard", "--diff");
      assertThat(first.all()).doesNotContain("ding-dong").contains("+bell.port=" + yard.http);
      assertThat(yard.page("/")).isEqualTo("200 räder & <\\u> 16 a = b 127.0.0.1");
      Path inPlace = yard.server.resolve("work/conf/bell.properties");
      assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(inPlace)))
          .isEqualTo("rw-------");
      long pid = yard.program();
      assertThat(yard.ok("deploy", "--to", "yard")).contains("Unchanged");
      assertThat(yard.program()).isEqualTo(pid);
      assertThat(yard.ok("check", "--on", "yard")).contains("Passed");
      Program.Run gone = yard.ends(0, "undeploy", "yard", "--from", "yard");
      assertThat(gone.all()).doesNotContain("ding-dong");
      yard.trace().isAs(before);
      assertThat(Yard.runs(pid)).isFalse();
    }
  }

  /** What a program does, and what is told of it. */
  private record Failing(String main, String... told) {}

  @Test
  void aProgramThatDoesNotComeUpIsTakenBackWithItsCause() throws IOException {
    List<Failing> table =
        List.of(
            new Failing(
                "throw new IllegalStateException(\"no brakes\");",
                "no brakes",
                "at    yard.Main.main(Main.java"),
            new Failing(
                "serve(Integer.parseInt(args[0]) + 10000, \"\");",
                "and not ",
                "Say in [program] how it is told"),
            new Failing(
                "var all = new java.util.ArrayList<byte[]>(); while (true) all.add(new byte[1 << 20]);",
                "ran out of memory",
                "Give it more 'memory'"),
            new Failing("System.exit(3);", "with exit code 3", "It printed nothing"),
            new Failing(
                "new java.net.Socket(\"127.0.0.1\", 9);",
                "Connection refused",
                "Start the database"),
            new Failing(
                "Runtime.getRuntime().exec(new String[] {\"kill\", \"-9\","
                    + " \"\" + ProcessHandle.current().pid()}); Thread.sleep(60000);",
                "was killed (signal 9)"));
    try (Yard yard = Yard.with(folder, SERVES, PORT)) {
      yard.ok("deploy", "--to", "yard");
      Trace before = yard.trace();
      for (Failing failing : table) {
        yard.pack("app.jar", failing.main());
        Program.Run run = yard.ends(5, "deploy", "--to", "yard");
        assertThat(run.all()).contains(failing.told());
        assertThat(yard.page("/")).isEqualTo("200 bell 1");
        yard.trace().isAs(before);
      }
    }
  }

  /** A line of the description, and how it is answered. */
  private record Wrong(String line, int exit, String told) {}

  @Test
  void aWrongDescriptionIsNamed() throws IOException {
    Files.writeString(folder.resolve("bad.yaml"), "a: 1\n b: [\n");
    Files.writeString(folder.resolve("bad.json"), "{\"a\": }");
    List<Wrong> table =
        List.of(
            new Wrong("java-options = [\"-XX:NoSuchThing\"]", 5, "Unrecognized VM option"),
            new Wrong("main = \"yard.Gone\"", 4, "yard.Gone: the class to start is not in"),
            new Wrong("settings-from = \"bad.yaml\"", 4, "line 2"),
            new Wrong("settings-from = \"bad.json\"", 4, "line 1"),
            new Wrong("settings-from = \"none.toml\"", 4, "cannot be read"),
            new Wrong("port-of-call = 1", 3, "unknown key 'port-of-call'"));
    try (Yard yard = Yard.with(folder, SERVES, PORT)) {
      for (Wrong wrong : table) {
        yard.describe(PORT, wrong.line());
        assertThat(yard.ends(wrong.exit(), "deploy", "--to", "yard").all()).contains(wrong.told());
      }
      assertThat(yard.ok("server", "list")).contains("stopped");
    }
  }

  @Test
  void whatCannotWorkIsForeseen() throws IOException {
    try (Yard yard = Yard.with(folder, SERVES, "");
        ServerSocket taken = new ServerSocket(yard.http, 1, InetAddress.getByName("127.0.0.1"))) {
      assertThat(taken.isBound()).isTrue();
      String told = yard.ends(4, "deploy", "--to", "yard").out();
      assertThat(told)
          .contains("nobody says how the program is told its HTTP port")
          .contains("listens on the port that 'http' names")
          .contains("process " + ProcessHandle.current().pid());
      Files.writeString(folder.resolve("app.jar"), "no archive");
      assertThat(yard.ends(4, "deploy", "--to", "yard").all()).contains("app.jar");
      assertThat(yard.server.resolve(".jolly")).doesNotExist();
    }
  }

  @Test
  void aProgramIsKeptAliveAndWhoLooksAfterItToo() throws IOException {
    try (Yard yard = Yard.with(folder, SERVES, PORT.replace("never", "on-crash"))) {
      yard.ok("deploy", "--to", "yard");
      long first = yard.program();
      Yard.kill(first);
      Yard.until("another process", () -> again(yard, first));
      Yard.kill(yard.keeper());
      long left = yard.program();
      assertThat(yard.ok("server", "list")).contains("program " + left + " goes on without");
      yard.ok("server", "start", "yard");
      assertThat(Yard.runs(left)).isFalse();
      assertThat(yard.page("/")).isEqualTo("200 bell 1");
      Yard.kill(yard.keeper());
      yard.ok("server", "stop", "yard");
      assertThat(yard.ok("server", "list")).contains("stopped").doesNotContain("goes on");
    }
  }

  private static boolean again(Yard yard, long pid) {
    try {
      return yard.program() != pid && yard.page("/").startsWith("200");
    } catch (IOException notYet) {
      return false;
    }
  }

  @Test
  void aProgramThatSpeaksNoHttpIsProvenByItsPort() throws IOException {
    String silent =
        "var socket = new java.net.ServerSocket(Integer.parseInt(args[0]), 9,"
            + " java.net.InetAddress.getLoopbackAddress()); while (true) socket.accept().close();";
    try (Yard yard = Yard.with(folder, silent, PORT, "speaks = \"tcp\"")) {
      assertThat(yard.ok("deploy", "--to", "yard"))
          .contains("it speaks no HTTP, so only its port is looked at")
          .contains("pass  listens on its port")
          .contains("Delivered yard");
      assertThat(yard.ok("check", "--on", "yard")).contains("Passed: 1 check");
      yard.ok("undeploy", "yard", "--from", "yard");
    }
  }

  @Test
  void aProgramThatWasEndedIsNamedAndDeliveredAgain() throws IOException {
    try (Yard yard = Yard.with(folder, SERVES, PORT)) {
      yard.ok("deploy", "--to", "yard");
      long pid = yard.program();
      Yard.kill(pid);
      yard.untilKeeperTellsThatItWasKilled();
      assertThat(yard.ends(8, "check", "--on", "yard").out()).contains("was killed (signal 9)");
      yard.ok("deploy", "--to", "yard");
      assertThat(yard.page("/")).isEqualTo("200 bell 1");
    }
  }

  @Test
  void aChildOwnsThePortAndADeafProgramPrintsItsThreads() throws IOException {
    String parent =
        """
        if (args.length > 1) { serve(Integer.parseInt(args[0]), "child"); return; }
        Runtime.getRuntime().addShutdownHook(new Thread(() -> {
          try { Thread.sleep(600000); } catch (InterruptedException e) { }
        }));
        new ProcessBuilder(System.getProperty("java.home") + "/bin/java", "-cp",
            System.getProperty("java.class.path"), "yard.Main", args[0], "x")
            .inheritIO().start().waitFor();
        """;
    try (Yard yard = Yard.with(folder, parent, PORT, "stops-within = \"1s\"")) {
      yard.ok("deploy", "--to", "yard");
      assertThat(yard.page("/")).isEqualTo("200 child");
      long pid = yard.program();
      List<Long> children =
          ProcessHandle.of(pid).orElseThrow().children().map(ProcessHandle::pid).toList();
      assertThat(children).hasSize(1);
      yard.ok("server", "stop", "yard");
      assertThat(Yard.runs(pid)).isFalse();
      Yard.until("the child to end", () -> !Yard.runs(children.get(0)));
      assertThat(yard.ok("server", "log", "yard"))
          .contains("open at " + yard.http)
          .contains("Full thread dump")
          .contains("Thread.sleep");
    }
  }

  @Test
  void theLogRotatesAndIsReadAsOne() throws IOException {
    String prints =
        """
        serve(Integer.parseInt(args[0]), "x");
        for (int i = 0; i < 6000; i++) System.out.println("line " + i + " INFO of the log");
        new IllegalStateException("at the end").printStackTrace();
        """;
    try (Yard yard = Yard.with(folder, prints, PORT, "ready = \"at the end\"")) {
      Path servers = folder.resolve("servers.toml");
      Files.writeString(servers, Files.readString(servers) + "log-size = \"20k\"\nlog-keep = 3\n");
      yard.ok("deploy", "--to", "yard");
      assertThat(yard.server.resolve("log").toFile().list())
          .filteredOn(name -> name.matches("yard\\.\\d+\\.log"))
          .hasSize(3);
      List<String> lines = yard.ok("server", "log", "yard", "--since-start").lines().toList();
      List<String> numbered = lines.stream().filter(line -> line.startsWith("line ")).toList();
      int first = Integer.parseInt(numbered.get(0).split(" ")[1]);
      assertThat(numbered).hasSize(6000 - first);
      assertThat(numbered.get(numbered.size() - 1)).startsWith("line 5999");
      assertThat(lines.get(lines.size() - 1)).startsWith("\tat yard.Main.main");
      assertThat(yard.ok("server", "log", "yard", "--json")).contains("\"level\" : \"ERROR\"");
    }
  }

  @Test
  void twoInstancesOfOneProgramRunSideBySide() throws IOException {
    try (Yard yard = Yard.with(folder, SERVES, PORT)) {
      int other = Workshop.freePort();
      yard.ok("server", "new", "annex", "--kind", "service", "--http", "" + other);
      yard.ok("deploy", "--to", "yard");
      yard.ok("deploy", "--to", "annex");
      assertThat(yard.page("/")).isEqualTo("200 bell 1");
      assertThat(Pages.get("http://127.0.0.1:" + other + "/")).isEqualTo("200 bell 1");
      yard.ok("server", "stop", "annex");
      assertThat(yard.page("/")).isEqualTo("200 bell 1");
    }
  }

  @Test
  void killedWhileDeliveringItIsTakenBack() throws Exception {
    try (Yard yard = Yard.with(folder, SERVES, PORT)) {
      yard.ok("deploy", "--to", "yard");
      Trace before = yard.trace();
      yard.pack("app.jar", "Thread.sleep(3000); " + SERVES.replace("bell 1", "bell 2"));
      Path out = folder.resolve("killed");
      Process process = yard.program.start(out, out, "deploy", "--to", "yard");
      Path journal = yard.server.resolve(".jolly/journal.jsonl");
      Yard.until(
          "the wait",
          () -> text(journal).contains("\"delivery\":2") && text(journal).contains("\"await\""));
      process.destroyForcibly().waitFor();
      assertThat(yard.ok("recover", "--on", "yard")).contains("Taken back");
      assertThat(yard.page("/")).isEqualTo("200 bell 1");
      yard.trace().isAs(before);
    }
  }

  private static String text(Path file) {
    try {
      return Files.readString(file);
    } catch (IOException e) {
      return "";
    }
  }

  @ParameterizedTest
  @CsvSource(
      delimiter = '|',
      textBlock =
          """
          nanohttpd-webserver | port = { argument = \\"-p\\" }             | arguments = [\\"-d\\", \\".\\"]
          h2                  | port = { argument = \\"-webPort\\" }       | arguments = [\\"-web\\"]
          """)
  void aRealProgramRunsByNothingButAnApplicationFile(String name, String port, String arguments)
      throws IOException {
    Path jar = Program.HOME.resolveSibling("../programs").normalize().resolve(name + ".jar");
    try (Yard yard = Yard.with(folder, SERVES, "")) {
      Files.writeString(
          folder.resolve("jolly.toml"),
          "name = \"real\"\nartifact = \""
              + jar
              + "\"\n[program]\n"
              + port.replace("\\\"", "\"")
              + "\n"
              + arguments.replace("\\\"", "\"")
              + "\n");
      yard.ok("deploy", "--to", "yard");
      assertThat(yard.page("/")).startsWith("200");
      yard.ok("undeploy", "real", "--from", "yard");
    }
  }
}

package jollycrate.cli;

import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Setting;
import jollycrate.check.HttpRequester;
import jollycrate.check.Requester;
import jollycrate.file.Trees;
import jollycrate.journal.DeliveryRecord;
import jollycrate.journal.EarlierRelease;
import jollycrate.journal.JournalLine;
import jollycrate.journal.Lock;
import jollycrate.json.Json;
import jollycrate.server.Standing;
import jollycrate.step.Step;
import jollycrate.stock.ProcessRecord;
import jollycrate.watch.Interrupts;

/**
 * Runs what commands have in common on a small project of its own, so that the classes they need
 * are loaded when this process ends and Java writes them to its class-data-sharing archive.
 */
public final class StartArchive {
  private static final String APPLICATION =
      """
      name = "start"
      version = "1"
      [pack]
      web = ["web"]
      leave-out = ["**/*.map"]
      [pack.war]
      shape = "war"
      [pack.page]
      shape = "front-end"
      [build]
      command = ["true"]
      sources = ["web"]
      [program]
      port = { argument = "--port={value}" }
      arguments = ["{address}"]
      variables = { KEY = "env:START_PASSWORD" }
      [program.datasource."jdbc/start"]
      url = { property = "start.url" }
      [datasource."jdbc/start"]
      url = "jdbc:start:x"
      password = "env:START_PASSWORD"
      driver = "web/driver.jar"
      pool = { max = 5, wait = "3s" }
      [for.other.app]
      path = "/other"
      [app]
      path = "/start"
      pack = "war"
      starts-within = "60s"
      [users]
      anna = "env:START_PASSWORD"
      [roles]
      owner = ["anna"]
      [[check]]
      name = "start"
      get = "/"
      status = 200
      text = "start"
      json = { "/a" = 1 }
      within = "1s"
      as = "anna"
      """;
  private static final List<List<String>> COMMANDS =
      List.of(
          List.of("--help"),
          List.of("--version"),
          List.of("nothing"),
          List.of("pack", "--all"),
          List.of("pack", "--json"),
          List.of("inspect", "packed/start-1.war"),
          List.of("inspect", "packed/start-1.war", "--json"),
          List.of("compare", "packed/start-1.war", "packed/start-1.war"),
          List.of("server", "new", "start"),
          List.of("server", "list"),
          List.of("check", "--on", "start"),
          List.of("deploy", "--to", "start", "--dry-run"),
          List.of("deliveries", "--on", "start"),
          List.of("undeploy", "start", "--from", "start"));

  private static final List<Class<?>> RECORDS =
      List.of(
          JournalLine.class,
          Step.class,
          DeliveryRecord.class,
          ProcessRecord.class,
          Standing.class,
          Lock.Holder.class);

  private StartArchive() {}

  /** Runs every command quietly. */
  public static void main(String[] args) throws IOException, ClassNotFoundException {
    Path folder = Files.createTempDirectory("jolly-start");
    try {
      Files.writeString(folder.resolve("jolly.toml"), APPLICATION);
      Files.createDirectories(folder.resolve("web/WEB-INF"));
      Files.writeString(folder.resolve("web/WEB-INF/web.xml"), "<web-app/>");
      PrintStream nowhere = new PrintStream(OutputStream.nullOutputStream());
      Setting setting = Setting.ofThisProcess().in(folder).keeping(folder.resolve("data"));
      for (List<String> command : COMMANDS) {
        new Jolly(nowhere, nowhere, setting, System::getenv, new Interrupts())
            .run(command.toArray(String[]::new));
      }
      ask();
      RECORDS.forEach(StartArchive::read);
      Json.document("{}".getBytes(StandardCharsets.US_ASCII), EarlierRelease.class);
      Class.forName("jollycrate.cli.Main");
    } finally {
      Trees.delete(folder);
    }
  }

  /** A request that is answered, by whatever stands behind a port of this process. */
  private static void ask() throws IOException {
    try (ServerSocket port = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        HttpRequester requester = new HttpRequester(() -> false)) {
      Thread answering = new Thread(() -> answer(port));
      answering.start();
      requester.send(
          new Requester.Request(
              "GET",
              URI.create("http://127.0.0.1:" + port.getLocalPort() + "/"),
              Map.of(),
              Optional.empty(),
              new Requester.Session(
                  "", Optional.of(new Requester.Credentials("anna", "start", false)), false)),
          Duration.ofSeconds(5));
    }
  }

  private static void answer(ServerSocket port) {
    try (Socket socket = port.accept()) {
      socket.getInputStream().read(new byte[1 << 10]);
      String answer =
          "HTTP/1.1 200 OK\r\nContent-Type: text/plain\r\nContent-Length: 5\r\n\r\nstart";
      socket.getOutputStream().write(answer.getBytes(StandardCharsets.US_ASCII));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** What reads a record is made when the first is read, whatever stands in it. */
  private static void read(Class<?> record) {
    Json.read("{}", record);
    Class<?>[] kinds = record.getPermittedSubclasses();
    if (kinds != null) {
      List.of(kinds).forEach(StartArchive::read);
    }
  }
}

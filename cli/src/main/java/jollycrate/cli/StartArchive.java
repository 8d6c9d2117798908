package jollycrate.cli;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.PrintStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.ApplicationFile;
import jollycrate.app.Setting;
import jollycrate.check.Checker;
import jollycrate.check.HttpRequester;
import jollycrate.check.People;
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
      [logins]
      anna = { form = "/start" }
      [[check]]
      name = "start"
      get = "/"
      status = 200
      text = "start"
      json = { "/a" = 1 }
      within = "1s"
      as = "anna"
      [[check]]
      name = "some"
      [[check.request]]
      post = "/some"
      body = { some = "{unique}", all = ["{version}"] }
      send-headers = { Accept = "text/plain" }
      status = 201
      remember = { number = "/id" }
      [[check.request]]
      get = "/some/{number}"
      text = "{unique}"
      json = { "/bytes" = { least = 1 } }
      [[check.afterwards]]
      delete = "/some/{number}"
      [[check]]
      name = "page"
      page = "/"
      [[access]]
      paths = ["/", "/some"]
      allowed = ["anyone"]
      denied = ["anna"]
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
          List.of("deploy", "packed/start-1.war", "--undescribed", "--to", "start", "--dry-run"),
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

  private static final String VARIABLE = "START_PASSWORD";
  private static final String PASSWORD = "oil";
  private static final String PAGE =
      "<html><link rel=stylesheet href=a.css><form method=post><input name=j_username>"
          + "<input name=j_password type=password></form></html>";

  private StartArchive() {}

  /** Runs every command quietly. */
  public static void main(String[] args) throws IOException, ClassNotFoundException {
    Path folder = Files.createTempDirectory("jolly-start");
    try {
      Files.writeString(folder.resolve("jolly.toml"), APPLICATION);
      Path classes = Files.createDirectories(folder.resolve("web/WEB-INF/classes"));
      Files.writeString(folder.resolve("web/WEB-INF/web.xml"), "<web-app/>");
      try (InputStream own = StartArchive.class.getResourceAsStream("StartArchive.class")) {
        Files.copy(own, classes.resolve("StartArchive.class"));
      }
      PrintStream nowhere = new PrintStream(OutputStream.nullOutputStream());
      Setting setting = Setting.ofThisProcess().in(folder).keeping(folder.resolve("data"));
      for (List<String> command : COMMANDS) {
        new Jolly(nowhere, nowhere, setting, Map.of(VARIABLE, PASSWORD)::get, new Interrupts())
            .run(command.toArray(String[]::new));
      }
      check(folder.resolve("jolly.toml"));
      RECORDS.forEach(StartArchive::read);
      Json.read("{}".getBytes(StandardCharsets.US_ASCII), EarlierRelease.class);
      Class.forName("jollycrate.cli.Main");
    } finally {
      Trees.delete(folder);
    }
  }

  /** The checks of the project, made on whatever stands behind a port of this process. */
  private static void check(Path description) throws IOException {
    Application application =
        ApplicationFile.read(description, Optional.empty(), reference -> PASSWORD);
    People people =
        new People(Map.of("anna", PASSWORD), application.access().logIns(), hidden -> {}, Map.of());
    try (ServerSocket port = new ServerSocket(0, 1, InetAddress.getLoopbackAddress());
        HttpRequester requester = new HttpRequester(() -> false)) {
      Thread answering = new Thread(() -> answer(port));
      answering.setDaemon(true);
      answering.start();
      URI base = URI.create("http://127.0.0.1:" + port.getLocalPort() + "/");
      application.checks().forEach(new Checker(requester, base, people)::run);
    }
  }

  private static void answer(ServerSocket port) {
    byte[] answer =
        ("HTTP/1.1 200 OK\r\nContent-Type: text/html\r\nConnection: close\r\nContent-Length: "
                + PAGE.length()
                + "\r\n\r\n"
                + PAGE)
            .getBytes(StandardCharsets.US_ASCII);
    while (!port.isClosed()) {
      try (Socket socket = port.accept()) {
        socket.getInputStream().read(new byte[1 << 14]);
        socket.getOutputStream().write(answer);
      } catch (IOException nobodyAsksAnyMore) {
        Thread.yield();
      }
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

package jollycrate.cli;

import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import jollycrate.app.Setting;
import jollycrate.check.HttpRequester;
import jollycrate.file.Trees;
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
      new HttpRequester(() -> false);
      Class.forName("jollycrate.cli.Main");
    } finally {
      Trees.delete(folder);
    }
  }
}

package jollycrate.cli.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import jollycrate.Crate;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ServersFile;
import jollycrate.app.Setting;
import jollycrate.cli.demo.DemoStory;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.file.Trees;

/** {@code jolly demo}. */
public final class DemoCommand implements Command {
  private static final Map<String, String> PASSWORDS =
      Map.of(
          "SPOKES_DB_PASSWORD",
          "chain&oil",
          "ROBIN_PASSWORD",
          "tandem for two",
          "MIA_PASSWORD",
          "freewheel & hub");
  private static final Option KEEP =
      Option.of("--keep", "leave the server and the application standing");
  private static final Option FOLDER =
      Option.of("--folder", "PATH", "where to play; else a temporary folder");

  private final Session session;

  /** In a session. */
  public DemoCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "demo",
            "Show it all in a minute, with a sample and a server of its own.",
            "Nothing outside its folder is touched, and nothing is fetched.")
        .takes(KEEP, FOLDER)
        .forPeopleOnly()
        .example("jolly demo", "from the first delivery to the last trace");
  }

  @Override
  public int run(Given given) throws IOException {
    boolean keep = given.has(KEEP);
    Path stage = stage(given.text(FOLDER));
    Setting setting = session.setting().in(stage);
    UnaryOperator<String> variables =
        name -> PASSWORDS.getOrDefault(name, session.environment().apply(name));
    Crate crate = session.crate(given);
    DemoStory story =
        new DemoStory(
            session.screen(),
            stage,
            args -> session.runner().run(setting, variables, args),
            archive -> crate.goesTo(crate.inspect(archive, false)),
            crate.hosts().missing());
    List<String> exports =
        PASSWORDS.keySet().stream().sorted().map(name -> "export " + name + "=...").toList();
    boolean asTold = false;
    try {
      asTold = story.tell(exports, keep);
    } finally {
      if (!asTold) {
        stopServers(setting, variables, stage);
      }
      if (!keep) {
        Trees.delete(given.has(FOLDER) ? stage : stage.getParent());
      }
    }
    return (asTold ? ExitCode.DONE : ExitCode.INTERNAL_ERROR).code();
  }

  private Path stage(Optional<String> folder) throws IOException {
    Path sample =
        session
            .setting()
            .archives()
            .map(servers -> servers.resolveSibling("samples").resolve("spokes"))
            .filter(Files::isDirectory)
            .orElseThrow(
                () ->
                    new NotDescribedException(
                        "Cannot find the sample: it ships in the folder 'samples' of Jolly Crate"));
    Path stage =
        folder.isPresent()
            ? session.file(folder.get())
            : Files.createTempDirectory("jolly-demo").resolve("spokes");
    if (Files.exists(stage)) {
      throw new NotDescribedException(
          "Cannot play in '" + stage + "': it exists already. Choose another --folder");
    }
    DemoStory.copy(sample, stage);
    Files.writeString(stage.resolve(ServersFile.NAME), "# The servers of the demo.\n");
    return stage;
  }

  private void stopServers(Setting setting, UnaryOperator<String> variables, Path stage) {
    Path file = stage.resolve(ServersFile.NAME);
    if (Files.exists(file)) {
      ServersFile.read(file)
          .forEach(
              entry -> session.runner().run(setting, variables, "server", "stop", entry.name()));
      ServersFile.hosts(file)
          .forEach(entry -> session.runner().run(setting, variables, "host", "stop", entry.name()));
    }
  }
}

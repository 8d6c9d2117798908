package jollycrate.cli.command;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.function.UnaryOperator;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Setting;
import jollycrate.cli.demo.DemoStory;
import jollycrate.cli.options.HelpOption;
import jollycrate.cli.output.ExitCode;
import jollycrate.file.Trees;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** {@code jolly demo}. */
@Command(
    name = "demo",
    description = {
      "Show it all in a minute, with a sample and a server of its own.",
      "Nothing outside its folder is touched, and nothing is fetched."
    })
public final class DemoCommand implements Callable<Integer> {
  private static final Map<String, String> PASSWORDS =
      Map.of("SPOKES_DB_PASSWORD", "chain&oil", "ROBIN_PASSWORD", "tandem for two");

  private final Session session;

  @Option(names = "--keep", description = "Leave the server and the application standing.")
  private boolean keep;

  @Option(
      names = "--folder",
      paramLabel = "PATH",
      description = "Where to play; else a temporary folder.")
  private Path folder;

  @Mixin private HelpOption help;

  /** In a session. */
  public DemoCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() throws IOException {
    Path stage = stage();
    Setting setting = session.setting().in(stage);
    UnaryOperator<String> variables =
        name -> PASSWORDS.getOrDefault(name, session.environment().apply(name));
    DemoStory story =
        new DemoStory(
            session.screen(), stage, args -> session.runner().run(setting, variables, args));
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
        Trees.delete(folder == null ? stage.getParent() : stage);
      }
    }
    return (asTold ? ExitCode.DONE : ExitCode.INTERNAL_ERROR).code();
  }

  private Path stage() throws IOException {
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
        folder == null
            ? Files.createTempDirectory("jolly-demo").resolve("spokes")
            : session.setting().folder().resolve(folder).normalize();
    if (Files.exists(stage)) {
      throw new NotDescribedException(
          "Cannot play in '" + stage + "': it exists already. Choose another --folder");
    }
    DemoStory.copy(sample, stage);
    return stage;
  }

  private void stopServers(Setting setting, UnaryOperator<String> variables, Path stage) {
    if (Files.exists(stage.resolve("servers.toml"))) {
      session.runner().run(setting, variables, "server", "stop", "bench");
      if (Files.exists(stage.resolve("servers/solo"))) {
        session.runner().run(setting, variables, "server", "stop", "solo");
      }
    }
  }
}

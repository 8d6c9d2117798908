package jollycrate.cli.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import jollycrate.app.ServersFile;
import jollycrate.cli.output.Screen;
import jollycrate.cli.output.Style;

/** The story of a workshop's application, from its first delivery to its removal. */
public final class DemoStory {
  private static final Set<String> LEFT_OUT = Set.of("logs", "temp", "work", ".jolly", "data");

  /** Runs one command in the folder of the story. */
  @FunctionalInterface
  public interface Commands {
    /** The exit code. */
    int run(String... args);
  }

  private final Screen screen;
  private final Style style;
  private final Path folder;
  private final Commands commands;
  private final Function<Path, List<String>> goesTo;
  private final Optional<String> noSsh;
  private boolean asExpected = true;

  /**
   * @param folder that the sample stands in
   * @param goesTo tells which servers an archive can go to
   * @param noSsh why no other machine can be reached from here; empty where it can
   */
  public DemoStory(
      Screen screen,
      Path folder,
      Commands commands,
      Function<Path, List<String>> goesTo,
      Optional<String> noSsh) {
    this.screen = screen;
    this.style = screen.style();
    this.folder = folder;
    this.commands = commands;
    this.goesTo = goesTo;
    this.noSsh = noSsh;
  }

  /** A command ended otherwise than the story goes. */
  private static final class CutShort extends RuntimeException {
    private static final long serialVersionUID = 1L;
  }

  /** Tells it; whether everything went as told. */
  public boolean tell(List<String> exports, boolean keep) {
    try {
      return toItsEnd(exports, keep);
    } catch (CutShort e) {
      say("The story is cut short here.");
      return false;
    }
  }

  private boolean toItsEnd(List<String> exports, boolean keep) {
    say("Spokes is a bicycle workshop's web application: pages, a JSON service, a database.");
    say("It stands in " + folder + " as classes and pages, described by jolly.toml.");
    exports.forEach(this::prompt);

    chapter("A server of its own");
    run(0, "server", "new", "bench");
    Path server = folder.resolve("servers/bench");
    FolderProof before = FolderProof.of(server, LEFT_OUT);

    chapter("What is delivered");
    run(0, "pack");
    run(0, "inspect", "packed/spokes-1.4.0.war");

    chapter("The first delivery: the server is started, everything proven");
    run(0, "deploy", "--to", "bench");

    chapter("The next release, while the server runs");
    edit("1.4.0", "1.5.0");
    run(0, "deploy", "--to", "bench");
    say("Delivering it once more changes nothing:");
    run(0, "deploy", "--to", "bench");

    chapter("Trouble that is foreseen: nothing is touched");
    say("The bare file says that it needs a database, and nobody says which:");
    run(
        4,
        "deploy",
        "packed/spokes-1.4.0.war",
        "--to",
        "bench",
        "--undescribed",
        "--path",
        "/second");

    chapter("Trouble that nobody could foresee: it is taken back");
    edit("1.5.0", "1.6.0");
    run(5, "deploy", "--to", "bench");
    edit("1.6.0", "1.5.0");
    say("The release before answers again:");
    run(0, "check", "--on", "bench");
    run(0, "deliveries", "--on", "bench");
    if (keep) {
      gap();
      say("Left standing. Go on with: cd " + folder);
      return asExpected;
    }

    chapter("The same application as a program of its own");
    run(0, "server", "new", "solo", "--kind", "service");
    run(0, "deploy", "--to", "solo");
    run(0, "server", "log", "solo", "--since-start");
    run(0, "undeploy", "spokes", "--from", "solo");
    run(0, "server", "stop", "solo");

    anotherMachine();

    chapter("Away again, without a trace");
    run(0, "undeploy", "spokes", "--from", "bench");
    prove(before, FolderProof.of(server, LEFT_OUT));
    run(0, "server", "stop", "bench");
    gap();
    List<String> servers = goesTo.apply(folder.resolve("packed/spokes-1.4.0.war"));
    say("The same file and description go to: " + String.join(", ", servers) + ".");
    say("An archive of a server is enough: jolly server new NAME --installation FILE");
    return asExpected;
  }

  private void anotherMachine() {
    chapter("Another machine, behind rules of its own");
    if (noSsh.isPresent()) {
      say("Left out: " + noSsh.get() + ".");
      return;
    }
    say("A practice host stands in for it: reached over SSH, and nothing but SSH is let in.");
    run(0, "host", "new", "app1");
    run(0, "server", "new", "far", "--host", "app1");
    run(5, "deploy", "--to", "far");
    say("Not the program's fault, and it says so. Its port is opened:");
    String port = portOf("far");
    run(0, "host", "open", "app1", port);
    run(0, "deploy", "--to", "far");
    say("And what it looks like when somebody closes it again:");
    run(0, "host", "close", "app1", port);
    run(8, "check", "--on", "far");
    run(0, "undeploy", "spokes", "--from", "far");
    run(0, "server", "stop", "far");
    run(0, "host", "stop", "app1");
  }

  private String portOf(String server) {
    return ServersFile.read(folder.resolve(ServersFile.NAME)).stream()
        .filter(entry -> entry.name().equals(server))
        .map(entry -> String.valueOf(entry.ports().http()))
        .findFirst()
        .orElseThrow();
  }

  private void prove(FolderProof before, FolderProof after) {
    List<String> differences = after.differences(before);
    gap();
    if (differences.isEmpty()) {
      say(
          style.good("No trace:")
              + " all "
              + after.size()
              + " paths of servers/bench have the bytes, mode and owner they had before the first"
              + " delivery.");
    } else {
      asExpected = false;
      say(style.bad("These differ: ") + String.join(", ", differences));
    }
    say("Not looked into: logs, temp, work, our records in .jolly, and data, which is theirs.");
  }

  private void chapter(String title) {
    gap();
    screen.line(style.strong("== " + title));
  }

  private void gap() {
    screen.gap();
  }

  private void say(String text) {
    screen.line(text);
  }

  private void prompt(String command) {
    screen.line(style.place("> ") + style.strong(command));
  }

  private void run(int expected, String... args) {
    gap();
    prompt("jolly " + String.join(" ", args));
    int code = commands.run(args);
    if (code != expected) {
      say(style.bad("This ended with exit code " + code + " instead of " + expected + "."));
      throw new CutShort();
    }
    if (code != 0) {
      say(style.faint("(exit code " + code + ")"));
    }
  }

  private void edit(String from, String to) {
    gap();
    prompt("sed -i 's/" + from + "/" + to + "/' jolly.toml");
    Path file = folder.resolve("jolly.toml");
    try {
      Files.writeString(file, Files.readString(file).replace(from, to));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Copies the sample to a folder that is not there yet. */
  public static void copy(Path sample, Path folder) throws IOException {
    try (Stream<Path> files = Files.walk(sample)) {
      for (Path file : files.toList()) {
        Path target = folder.resolve(sample.relativize(file).toString());
        if (Files.isDirectory(file)) {
          Files.createDirectories(target);
        } else {
          Files.copy(file, target);
        }
      }
    }
  }
}

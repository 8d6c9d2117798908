package jollycrate.cli.manual;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import jollycrate.app.Setting;
import jollycrate.cli.command.Command;
import jollycrate.cli.command.Commands;
import jollycrate.cli.command.Session;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.Screen;
import jollycrate.cli.output.Style;
import jollycrate.secret.Secrets;
import jollycrate.watch.Interrupts;

/** Writes the manual pages and the completion scripts while the program is built. */
public final class Manual {
  private Manual() {}

  /** Into the folder that the one argument names: {@code man1} and {@code completion}. */
  public static void main(String[] args) throws IOException {
    List<Usage> usages = usages();
    Path pages = Files.createDirectories(Path.of(args[0], "man1"));
    Files.writeString(pages.resolve("jolly.1"), ManualPage.overview(usages));
    for (Usage usage : usages) {
      String file = "jolly-" + usage.name().replace(' ', '-') + ".1";
      Files.writeString(pages.resolve(file), ManualPage.of(usage));
    }
    Path scripts = Files.createDirectories(Path.of(args[0], "completion"));
    Files.writeString(scripts.resolve("jolly.bash"), Completion.bash(usages));
    Files.writeString(scripts.resolve("_jolly"), Completion.zsh(usages));
  }

  /** What every command says of itself. */
  static List<Usage> usages() {
    PrintStream nowhere = new PrintStream(new ByteArrayOutputStream());
    Secrets secrets = new Secrets(name -> null);
    Session session =
        new Session(
            new Screen(nowhere, nowhere, new Style(false, false, 80), secrets),
            Setting.ofThisProcess(),
            name -> null,
            new Interrupts(),
            (setting, environment, arguments) -> 0);
    return Commands.names().stream()
        .flatMap(name -> Commands.named(name, session).stream())
        .map(Command::usage)
        .toList();
  }
}

package jollycrate.cli;

import java.io.IOException;
import java.io.PrintStream;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import jollycrate.app.Nearest;
import jollycrate.app.Setting;
import jollycrate.build.BuildException;
import jollycrate.cli.command.Command;
import jollycrate.cli.command.Commands;
import jollycrate.cli.command.Session;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.FailureView;
import jollycrate.cli.output.HelpPage;
import jollycrate.cli.output.Screen;
import jollycrate.cli.output.Style;
import jollycrate.control.ServerStartException;
import jollycrate.secret.Secrets;
import jollycrate.server.KindFault;
import jollycrate.watch.Interrupts;

/** The commands, run over two streams. */
public final class Jolly {
  private static final String VERSION = "jolly 0.1.0";

  private final Session session;
  private final Screen screen;
  private boolean machineReads;

  /**
   * @param environment value of a variable, null when it is not set
   */
  public Jolly(
      PrintStream out,
      PrintStream err,
      Setting setting,
      UnaryOperator<String> environment,
      Interrupts interrupts) {
    this(
        new Screen(out, err, Style.ofThisProcess(environment), new Secrets(environment)),
        setting,
        environment,
        interrupts);
  }

  private Jolly(
      Screen screen, Setting setting, UnaryOperator<String> environment, Interrupts interrupts) {
    this.screen = screen;
    this.session =
        new Session(
            screen,
            setting,
            environment,
            interrupts,
            (folder, variables, args) ->
                new Jolly(screen.resolving(variables), folder, variables, interrupts).run(args));
  }

  /** Runs one command; the exit code. */
  public int run(String... args) {
    List<String> words = List.of(args);
    machineReads = words.contains(Option.JSON.name());
    try (session) {
      return run(words);
    } catch (WrongUsage e) {
      return wrongUsage(words, e);
    } catch (Exception e) {
      session.failed(
          "jolly " + String.join(" ", words.subList(0, Math.min(1, words.size()))), e.getMessage());
      return failed(e);
    }
  }

  private int run(List<String> words) throws IOException {
    String first = words.isEmpty() ? "" : words.get(0);
    switch (first) {
      case "" -> throw new WrongUsage("A command is missing");
      case "--help", "-h" -> {
        new HelpPage(screen).overview(usages());
        return ExitCode.DONE.code();
      }
      case "--version", "-V" -> {
        screen.line(VERSION);
        return ExitCode.DONE.code();
      }
      default -> {
        return run(called(words), words);
      }
    }
  }

  private int run(Call call, List<String> words) throws IOException {
    if (call.command.isEmpty()) {
      return group(call.words, words);
    }
    Command command = call.command.get();
    Given given = command.usage().parse(words.subList(call.words.split(" ").length, words.size()));
    if (given.has(Option.HELP)) {
      new HelpPage(screen).show(command.usage());
      return ExitCode.DONE.code();
    }
    session.debugging(given.has(Option.DEBUG));
    return command.run(given);
  }

  /** A command with the words that called it; none for the first word of several commands. */
  private record Call(String words, Optional<Command> command) {}

  private Call called(List<String> words) {
    String first = words.get(0);
    List<String> below = Commands.after(first);
    if (!below.isEmpty()) {
      String second = words.size() > 1 ? words.get(1) : "";
      return below.contains(second)
          ? new Call(first + " " + second, Commands.named(first + " " + second, session))
          : new Call(first, Optional.empty());
    }
    Optional<Command> command = Commands.named(first, session);
    if (command.isEmpty()) {
      throw new WrongUsage("There is no command '" + first + "'" + near(first, Commands.names()));
    }
    return new Call(first, command);
  }

  private int group(String first, List<String> words) {
    List<String> below = Commands.after(first);
    String second = words.size() > 1 ? words.get(1) : "";
    if (Option.HELP.names().contains(second)) {
      new HelpPage(screen)
          .overview(usages().stream().filter(one -> one.name().startsWith(first + " ")).toList());
      return ExitCode.DONE.code();
    }
    throw new WrongUsage(
        second.isEmpty()
            ? "Say which: jolly " + first + " " + String.join(", ", below)
            : "There is no command '" + first + " " + second + "'" + near(second, below));
  }

  private List<Usage> usages() {
    return Commands.names().stream()
        .flatMap(name -> Commands.named(name, session).stream())
        .map(Command::usage)
        .toList();
  }

  private static String near(String word, List<String> known) {
    return Nearest.to(word, known).map(near -> ". Did you mean '" + near + "'?").orElse("");
  }

  private int wrongUsage(List<String> words, WrongUsage e) {
    String asked = words.isEmpty() ? "" : words.get(0);
    String second = words.size() > 1 ? words.get(1) : "";
    String name =
        Commands.names().contains(asked)
            ? "jolly " + asked
            : Commands.after(asked).contains(second) ? "jolly " + asked + " " + second : "jolly";
    String end = e.getMessage().endsWith("?") ? "" : ".";
    String told = e.getMessage() + end + " See '" + name + " --help'";
    screen.complain(told);
    document(ExitCode.USAGE, told);
    return ExitCode.USAGE.code();
  }

  private int failed(Exception e) {
    ExitCode code = session.wasInterrupted() ? ExitCode.INTERRUPTED : ExitCode.of(e);
    if (e instanceof ServerStartException start) {
      new FailureView(screen).cause("The server does not start", start.why());
    } else if (code == ExitCode.INTERNAL_ERROR) {
      screen.complain(
          KindFault.of(e)
              .map(kind -> "This is a fault of " + kind + ": " + e + ". Report it to who made it")
              .orElse(
                  "This is a fault of ours: "
                      + e
                      + ". Run it again with --debug and report what it prints"));
    } else {
      screen.complain(e.getMessage());
    }
    if (e instanceof BuildException build && !build.output().isEmpty()) {
      screen.note(build.output());
    }
    if (session.debug()) {
      screen.trace(e);
    }
    document(code, e.getMessage());
    return code.code();
  }

  /** A command that fails gives a document too, when one was asked for. */
  private void document(ExitCode code, String error) {
    if (machineReads) {
      screen.json(new Failed(code.code(), code.name(), String.valueOf(error)));
    }
  }

  /** The document of a command that did not come about. */
  private record Failed(int exit, String result, String error) {}
}

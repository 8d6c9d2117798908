package jollycrate.cli;

import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.function.UnaryOperator;
import jollycrate.BuildException;
import jollycrate.Setting;
import jollycrate.app.Nearest;
import jollycrate.app.Secrets;
import jollycrate.cli.command.CheckCommand;
import jollycrate.cli.command.CompareCommand;
import jollycrate.cli.command.DeliveriesCommand;
import jollycrate.cli.command.DemoCommand;
import jollycrate.cli.command.DeployCommand;
import jollycrate.cli.command.InspectCommand;
import jollycrate.cli.command.PackCommand;
import jollycrate.cli.command.RecoverCommand;
import jollycrate.cli.command.ServerCommand;
import jollycrate.cli.command.Session;
import jollycrate.cli.command.UndeployCommand;
import jollycrate.cli.output.FailureView;
import jollycrate.cli.output.Screen;
import jollycrate.cli.output.Style;
import jollycrate.delivery.Interrupts;
import jollycrate.delivery.ServerStartException;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.UnmatchedArgumentException;

/** The commands, run over two streams. */
public final class Jolly {
  private final Session session;
  private final Screen screen;

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

  /** The program itself, without a command. */
  @Command(
      name = "jolly",
      mixinStandardHelpOptions = true,
      version = "jolly 0.1.0",
      sortOptions = false,
      description = {
        "Packs Java web applications, delivers them to application servers and proves that they"
            + " answer.",
        "",
        "Describe the application in jolly.toml and the servers in servers.toml; both are found"
            + " upwards from the current folder.",
        ""
      },
      synopsisSubcommandLabel = "COMMAND",
      footer = {"", "'jolly COMMAND --help' tells more. 'jolly demo' shows it all in a minute."})
  static final class Program implements Runnable {
    @CommandLine.Spec private CommandLine.Model.CommandSpec spec;

    @Override
    public void run() {
      throw new ParameterException(spec.commandLine(), "A command is missing");
    }
  }

  /** Runs one command; the exit code. */
  public int run(String... args) {
    CommandLine line = new CommandLine(new Program());
    Map<String, Supplier<Object>> commands = commands();
    Optional<String> wanted = Arrays.stream(args).findFirst().filter(commands::containsKey);
    commands.forEach(
        (name, command) -> {
          if (wanted.isEmpty() || wanted.get().equals(name)) {
            line.addSubcommand(command.get());
          }
        });
    line.setOut(new PrintWriter(screen.out(), true, StandardCharsets.UTF_8));
    line.setErr(new PrintWriter(screen.err(), true, StandardCharsets.UTF_8));
    line.setExpandAtFiles(false);
    line.setUsageHelpLongOptionsMaxWidth(26);
    line.setColorScheme(CommandLine.Help.defaultColorScheme(CommandLine.Help.Ansi.OFF));
    line.setParameterExceptionHandler((e, given) -> wrongUsage(e));
    line.setExecutionExceptionHandler((e, at, parsed) -> failed(e));
    return line.execute(args);
  }

  /** Made only when they are asked for, which keeps the start short. */
  private Map<String, Supplier<Object>> commands() {
    Map<String, Supplier<Object>> commands = new LinkedHashMap<>();
    commands.put("inspect", () -> new InspectCommand(session));
    commands.put("compare", () -> new CompareCommand(session));
    commands.put("pack", () -> new PackCommand(session));
    commands.put("server", () -> ServerCommand.line(session));
    commands.put("deploy", () -> new DeployCommand(session));
    commands.put("check", () -> new CheckCommand(session));
    commands.put("undeploy", () -> new UndeployCommand(session));
    commands.put("deliveries", () -> new DeliveriesCommand(session));
    commands.put("recover", () -> new RecoverCommand(session));
    commands.put("demo", () -> new DemoCommand(session));
    return commands;
  }

  private int wrongUsage(ParameterException e) {
    String mend = "";
    if (e instanceof UnmatchedArgumentException unmatched && !unmatched.getUnmatched().isEmpty()) {
      String word = unmatched.getUnmatched().get(0);
      mend =
          Nearest.to(word, e.getCommandLine().getSubcommands().keySet())
              .map(near -> " Did you mean '" + near + "'?")
              .orElse("");
    }
    String name = e.getCommandLine().getCommandSpec().qualifiedName();
    screen.complain(e.getMessage() + "." + mend + " '" + name + " --help' tells how");
    return ExitCode.USAGE.code();
  }

  private int failed(Exception e) {
    ExitCode code = session.wasInterrupted() ? ExitCode.INTERRUPTED : ExitCode.of(e);
    if (e instanceof ServerStartException start) {
      new FailureView(screen).cause("The server does not start", start.why());
    } else if (code == ExitCode.INTERNAL_ERROR) {
      screen.complain(
          "This is a fault of ours: "
              + e
              + ". Run it again with --debug and report what it prints");
    } else {
      screen.complain(e.getMessage());
    }
    if (e instanceof BuildException build && !build.output().isEmpty()) {
      screen.note(build.output());
    }
    if (session.debug()) {
      screen.trace(e);
    }
    return code.code();
  }
}

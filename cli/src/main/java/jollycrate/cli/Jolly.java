package jollycrate.cli;

import java.io.PrintStream;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.function.UnaryOperator;
import jollycrate.app.Nearest;
import jollycrate.app.Setting;
import jollycrate.build.BuildException;
import jollycrate.cli.command.CheckCommand;
import jollycrate.cli.command.CompareCommand;
import jollycrate.cli.command.DeliveriesCommand;
import jollycrate.cli.command.DemoCommand;
import jollycrate.cli.command.DeployCommand;
import jollycrate.cli.command.InspectCommand;
import jollycrate.cli.command.PackCommand;
import jollycrate.cli.command.RecoverCommand;
import jollycrate.cli.command.RunCommand;
import jollycrate.cli.command.ServerCommand;
import jollycrate.cli.command.Session;
import jollycrate.cli.command.ShapesCommand;
import jollycrate.cli.command.UndeployCommand;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.FailureView;
import jollycrate.cli.output.Screen;
import jollycrate.cli.output.Style;
import jollycrate.control.ServerStartException;
import jollycrate.secret.Secrets;
import jollycrate.watch.Interrupts;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.UnmatchedArgumentException;

/** The commands, run over two streams. */
public final class Jolly {
  private static final List<String> COMMANDS =
      List.of(
          "inspect",
          "compare",
          "pack",
          "server",
          "deploy",
          "check",
          "undeploy",
          "deliveries",
          "recover",
          "run",
          "try-shapes",
          "demo");
  private static final List<String> VERSION = List.of("-V", "--version");

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

  /** The program itself; described without annotations, which take a while to be read. */
  private static CommandSpec program() {
    Runnable[] nothing = new Runnable[1];
    CommandSpec spec = CommandSpec.wrapWithoutInspection((Runnable) () -> nothing[0].run());
    nothing[0] =
        () -> {
          throw new ParameterException(spec.commandLine(), "A command is missing");
        };
    spec.name("jolly").version("jolly 0.1.0");
    spec.addOption(
        OptionSpec.builder("-h", "--help").usageHelp(true).description("Show this help.").build());
    spec.addOption(
        OptionSpec.builder("-V", "--version")
            .versionHelp(true)
            .description("Show the version.")
            .build());
    spec.usageMessage()
        .sortOptions(false)
        .synopsisSubcommandLabel("COMMAND")
        .description(
            "Packs Java web applications, delivers them to application servers and proves that"
                + " they answer.",
            "",
            "Describe the application in jolly.toml and the servers in servers.toml; both are found"
                + " upwards from the current folder.",
            "")
        .footer("", "'jolly COMMAND --help' tells more. 'jolly demo' shows it all in a minute.");
    return spec;
  }

  /** Runs one command; the exit code. */
  public int run(String... args) {
    machineReads = List.of(args).contains("--json");
    CommandLine line = new CommandLine(program());
    String first = args.length == 0 ? "" : args[0];
    boolean one = COMMANDS.contains(first) || VERSION.contains(first);
    for (String name : COMMANDS) {
      if (!one || name.equals(first)) {
        line.addSubcommand(command(name, args.length > 1 ? args[1] : ""));
      }
    }
    line.setOut(new PrintWriter(screen.out(), true, StandardCharsets.UTF_8));
    line.setErr(new PrintWriter(screen.err(), true, StandardCharsets.UTF_8));
    line.setExpandAtFiles(false);
    line.setUsageHelpLongOptionsMaxWidth(26);
    line.setColorScheme(CommandLine.Help.defaultColorScheme(CommandLine.Help.Ansi.OFF));
    line.setParameterExceptionHandler((e, given) -> wrongUsage(e));
    line.setExecutionExceptionHandler((e, at, parsed) -> failed(e));
    return line.execute(args);
  }

  /** Made only when it is asked for, which keeps the start short. */
  private Object command(String name, String next) {
    return switch (name) {
      case "inspect" -> new InspectCommand(session);
      case "compare" -> new CompareCommand(session);
      case "pack" -> new PackCommand(session);
      case "server" -> ServerCommand.line(session, next);
      case "deploy" -> new DeployCommand(session);
      case "check" -> new CheckCommand(session);
      case "undeploy" -> new UndeployCommand(session);
      case "deliveries" -> new DeliveriesCommand(session);
      case "recover" -> new RecoverCommand(session);
      case "run" -> new RunCommand(session);
      case "try-shapes" -> new ShapesCommand(session);
      case "demo" -> new DemoCommand(session);
      default -> throw new IllegalArgumentException(name);
    };
  }

  private int wrongUsage(ParameterException e) {
    String fix = "";
    if (e instanceof UnmatchedArgumentException unmatched && !unmatched.getUnmatched().isEmpty()) {
      String word = unmatched.getUnmatched().get(0);
      fix =
          Nearest.to(word, e.getCommandLine().getSubcommands().keySet())
              .map(near -> " Did you mean '" + near + "'?")
              .orElse("");
    }
    String name = e.getCommandLine().getCommandSpec().qualifiedName();
    String what = e.getMessage().replaceFirst("^Error: ", "");
    String told = what + "." + fix + " '" + name + " --help' tells how";
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

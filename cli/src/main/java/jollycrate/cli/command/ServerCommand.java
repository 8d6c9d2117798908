package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.function.Supplier;
import jollycrate.app.Jvm;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServersFile;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.options.HelpOption;
import jollycrate.cli.options.ServerName;
import jollycrate.cli.output.DeliveryView;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.FailureView;
import jollycrate.cli.output.Screen;
import jollycrate.cli.output.ServersView;
import jollycrate.delivery.ServerService;
import jollycrate.site.NewServer;
import jollycrate.site.ServerState;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code jolly server}. */
@Command(
    name = "server",
    synopsisSubcommandLabel = "COMMAND",
    description = "Make, list, start and stop servers, and read their logs.")
public final class ServerCommand implements Runnable {
  @Spec private CommandSpec spec;

  @Mixin private HelpOption help;

  private ServerCommand() {}

  /**
   * The command with those below it.
   *
   * @param asked the only one that is needed; another word: all of them
   */
  public static CommandLine line(Session session, String asked) {
    Map<String, Supplier<Object>> below = new LinkedHashMap<>();
    below.put("new", () -> new New(session));
    below.put("list", () -> new ListAll(session));
    below.put("start", () -> new Start(session));
    below.put("stop", () -> new Stop(session));
    below.put("log", () -> new ServerLogCommand(session));
    CommandLine line = new CommandLine(new ServerCommand());
    below.forEach(
        (name, command) -> {
          if (name.equals(asked) || !below.containsKey(asked)) {
            line.addSubcommand(command.get());
          }
        });
    return line;
  }

  @Override
  public void run() {
    throw new ParameterException(spec.commandLine(), "Say new, list, start, stop or log");
  }

  /** {@code jolly server new}. */
  @Command(
      name = "new",
      description =
          "Make a practice server or a service in a folder of its own and describe it in servers.toml.")
  static final class New implements Callable<Integer> {
    private final Session session;

    @Spec private CommandSpec spec;

    @Mixin private CommonOptions options;

    @Parameters(paramLabel = "NAME", description = "Its name from now on.")
    private String name;

    @Option(
        names = "--http",
        paramLabel = "PORT",
        description = "HTTP port; else the first free from 8080.")
    private Integer http;

    @Option(
        names = "--admin",
        paramLabel = "PORT",
        description = "Port of the admin listener, on loopback only; else the next free one.")
    private Integer admin;

    @Option(
        names = "--address",
        paramLabel = "IP",
        defaultValue = ServersFile.LOOPBACK,
        description = "Address that HTTP is bound to (${DEFAULT-VALUE}).")
    private String address;

    @Option(
        names = "--memory",
        paramLabel = "SIZE",
        defaultValue = Jvm.MEMORY,
        description = "Maximum heap, like 512m (${DEFAULT-VALUE}).")
    private String memory;

    @Option(
        names = "--java",
        paramLabel = "HOME",
        description = "Home of the Java it runs on; else the one jolly runs on.")
    private Path java;

    @Option(
        names = "--folder",
        paramLabel = "PATH",
        description = "Its own folder; else servers/NAME beside servers.toml.")
    private Path folder;

    @Option(
        names = "--installation",
        paramLabel = "PATH",
        description = "Unpacked server that it runs; else the Tomcat that comes along.")
    private Path installation;

    @Option(
        names = "--as-service",
        description = "Make a service, in which one executable JAR or WAR runs by itself.")
    private boolean asService;

    New(Session session) {
      this.session = session;
    }

    @Override
    public Integer call() {
      if (asService && installation != null) {
        throw new ParameterException(
            spec.commandLine(), "A service runs a program of its own and has no --installation");
      }
      ServerEntry entry =
          session
              .crate(options)
              .newServer(
                  new NewServer(
                      name,
                      Optional.ofNullable(folder),
                      Optional.ofNullable(installation),
                      Optional.ofNullable(http),
                      Optional.ofNullable(admin),
                      address,
                      memory,
                      Optional.ofNullable(java),
                      asService));
      Screen screen = session.screen();
      if (options.json()) {
        return session.done(entry);
      }
      String what = entry.service() ? " service " : " server ";
      screen.line(screen.style().good("Made") + what + name + " in " + entry.folder());
      String admin = entry.ports().admin().map(port -> ", admin port " + port).orElse("");
      screen.line("HTTP port " + entry.ports().http() + admin + "; described in servers.toml");
      return ExitCode.DONE.code();
    }
  }

  /** {@code jolly server list}. */
  @Command(name = "list", description = "Show every described server as it stands now.")
  static final class ListAll implements Callable<Integer> {
    private final Session session;

    @Mixin private CommonOptions options;

    ListAll(Session session) {
      this.session = session;
    }

    @Override
    public Integer call() {
      session.interrupts().changesNothing();
      List<ServerState> servers = session.crate(options).servers();
      if (options.json()) {
        return session.ended(ExitCode.DONE, "servers", servers);
      }
      new ServersView(session.screen()).show(servers);
      return ExitCode.DONE.code();
    }
  }

  /** {@code jolly server start}. */
  @Command(name = "start", description = "Start a server and wait until it answers.")
  static final class Start implements Callable<Integer> {
    private final Session session;

    @Mixin private CommonOptions options;

    @Mixin private ServerName server;

    Start(Session session) {
      this.session = session;
    }

    @Override
    public Integer call() {
      DeliveryView view = new DeliveryView(session.screen());
      ServerService.Started started = session.crate(options, view).server(server.get()).start();
      ExitCode code = started.failed().isEmpty() ? ExitCode.DONE : ExitCode.CHECKS_FAILED;
      if (options.json()) {
        return session.ended(code, started);
      }
      told(session, options, server.get(), started.changed(), "started", "runs already");
      FailureView failures = new FailureView(session.screen());
      started.failed().forEach(cause -> failures.cause("Not up", cause));
      return code.code();
    }
  }

  /** {@code jolly server stop}. */
  @Command(name = "stop", description = "Stop a server.")
  static final class Stop implements Callable<Integer> {
    private final Session session;

    @Mixin private CommonOptions options;

    @Mixin private ServerName server;

    Stop(Session session) {
      this.session = session;
    }

    @Override
    public Integer call() {
      ServerService service = session.crate(options).server(server.get());
      return told(session, options, server.get(), service.stop(), "stopped", "does not run");
    }
  }

  /** What became of a server's process. */
  private record Changed(String server, boolean changed) {}

  private static int told(
      Session session, CommonOptions options, String name, boolean done, String act, String not) {
    Screen screen = session.screen();
    if (options.json()) {
      return session.done(new Changed(name, done));
    }
    screen.line(
        done ? screen.style().good("Server " + name + " " + act) : "Server " + name + " " + not);
    return ExitCode.DONE.code();
  }
}

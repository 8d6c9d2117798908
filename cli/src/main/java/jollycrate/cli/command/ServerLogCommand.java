package jollycrate.cli.command;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.LogView;
import jollycrate.watch.LogEntry;
import jollycrate.watch.LogLevel;
import jollycrate.watch.ServerLogReader;

/** {@code jolly server log}. */
public final class ServerLogCommand implements Command {
  private static final Option FOLLOW =
      Option.of("--follow", "go on as more is printed, until Ctrl-C");
  private static final Option SINCE_START =
      Option.of("--since-start", "show everything since it was started last");

  private static final Option LEVEL =
      Option.of(
          "--level", "LEVEL", "only entries that are at least an 'error', 'warning' or 'info'");
  private static final Option APP =
      Option.of(
          "--app", "NAME", "only entries of one application, as far as they can be told apart");

  private final Session session;

  /** In a session. */
  public ServerLogCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server log",
            "Show what a server or service printed last, as one stream.",
            "Several logs are one stream in the order of their stamps, and so are rotated parts;"
                + " stack traces stay with what they belong to.")
        .needs("NAME", "the server, as servers.toml names it")
        .takes(FOLLOW, SINCE_START, LEVEL, APP)
        .example("jolly server log bench --since-start", "everything since it was started last")
        .example("jolly server log shop --level warning --app spokes", "what went wrong in one")
        .example("jolly server log solo --follow", "go on until Ctrl-C");
  }

  @Override
  public int run(Given given) {
    if (given.has(FOLLOW) && given.json()) {
      throw new WrongUsage("--follow has no end, so it makes no JSON document");
    }
    List<LogEntry> entries = new ArrayList<>();
    LogView view = new LogView(session.screen());
    Consumer<LogEntry> found = given.json() ? entries::add : view::show;
    LogLevel least = given.text(LEVEL).map(ServerLogCommand::level).orElse(LogLevel.NONE);
    ServerLogReader log =
        session
            .crate(given)
            .servers()
            .named(given.operand(0).orElseThrow())
            .log(found, least, given.text(APP));
    ServerLogReader begun = given.has(SINCE_START) ? log.sinceStart() : log.nearTheEnd();
    if (given.has(FOLLOW)) {
      begun.follow(session.interrupts()::isAsked);
    } else {
      begun.read();
    }
    return given.json() ? session.ended(ExitCode.DONE, "entries", entries) : ExitCode.DONE.code();
  }

  private static LogLevel level(String text) {
    return switch (text) {
      case "error" -> LogLevel.ERROR;
      case "warning" -> LogLevel.WARNING;
      case "info" -> LogLevel.INFO;
      default -> throw new WrongUsage("'" + text + "' is none of 'error', 'warning' and 'info'");
    };
  }
}

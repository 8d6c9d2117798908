package jollycrate.cli.command;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.function.Consumer;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.options.ServerName;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.LogView;
import jollycrate.watch.LogEntry;
import jollycrate.watch.ServerLogReader;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Spec;

/** {@code jolly server log}. */
@Command(
    name = "log",
    description = {
      "Show what a server or service printed last, as one stream.",
      "Rotated parts of the log are put together, stack traces stay with what they belong to."
    })
final class ServerLogCommand implements Callable<Integer> {
  private final Session session;

  @Spec private CommandSpec spec;

  @Mixin private CommonOptions options;

  @Mixin private ServerName server;

  @Option(names = "--follow", description = "Go on as more is printed, until Ctrl-C.")
  private boolean follow;

  @Option(names = "--since-start", description = "Show everything since it was started last.")
  private boolean sinceStart;

  ServerLogCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    if (follow && options.json()) {
      throw new ParameterException(
          spec.commandLine(), "--follow has no end, so it makes no JSON document");
    }
    List<LogEntry> entries = new ArrayList<>();
    LogView view = new LogView(session.screen());
    Consumer<LogEntry> found = options.json() ? entries::add : view::show;
    ServerLogReader log = session.crate(options).server(server.get()).log(found);
    ServerLogReader begun = sinceStart ? log.sinceStart() : log.nearTheEnd();
    if (follow) {
      begun.follow(session.interrupts()::isAsked);
    } else {
      begun.read();
    }
    if (options.json()) {
      return session.ended(ExitCode.DONE, "entries", entries);
    }
    return ExitCode.DONE.code();
  }
}

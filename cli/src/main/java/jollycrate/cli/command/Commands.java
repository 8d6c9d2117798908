package jollycrate.cli.command;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;

/** Every command, by its words, in the order in which a newcomer meets them. */
public final class Commands {
  private static final Map<String, Function<Session, Command>> ALL = all();

  private Commands() {}

  private static Map<String, Function<Session, Command>> all() {
    Map<String, Function<Session, Command>> all = new LinkedHashMap<>();
    all.put("draft", DraftCommand::new);
    all.put("inspect", InspectCommand::new);
    all.put("compare", CompareCommand::new);
    all.put("pack", PackCommand::new);
    all.put("server new", ServerNewCommand::new);
    all.put("server adopt", ServerAdoptCommand::new);
    all.put("server list", ServerListCommand::new);
    all.put("server test", ServerTestCommand::new);
    all.put("server start", session -> new ServerTurn(session, ServerTurn.Turn.START));
    all.put("server stop", session -> new ServerTurn(session, ServerTurn.Turn.STOP));
    all.put("server restart", session -> new ServerTurn(session, ServerTurn.Turn.RESTART));
    all.put("server change", ServerChangeCommand::new);
    all.put("server users", ServerUsersCommand::new);
    all.put("server harden", ServerHardenCommand::new);
    all.put("server remove", ServerRemoveCommand::new);
    all.put("server log", ServerLogCommand::new);
    all.put("host list", HostListCommand::new);
    all.put("host new", HostNewCommand::new);
    all.put("host open", session -> new HostDoor(session, HostDoor.Rule.OPEN));
    all.put("host close", session -> new HostDoor(session, HostDoor.Rule.CLOSE));
    all.put("host start", session -> new HostTurn(session, HostTurn.Turn.START));
    all.put("host stop", session -> new HostTurn(session, HostTurn.Turn.STOP));
    all.put("host test", HostTestCommand::new);
    all.put("host trust", HostTrustCommand::new);
    all.put("deploy", DeployCommand::new);
    all.put("check", CheckCommand::new);
    all.put("watch", WatchCommand::new);
    all.put("undeploy", UndeployCommand::new);
    all.put("rollback", RollbackCommand::new);
    all.put("apps", AppsCommand::new);
    all.put("app start", session -> new AppTurn(session, AppTurn.Turn.START));
    all.put("app stop", session -> new AppTurn(session, AppTurn.Turn.STOP));
    all.put("app restart", session -> new AppTurn(session, AppTurn.Turn.RESTART));
    all.put("settings", SettingsCommand::new);
    all.put("deliveries", DeliveriesCommand::new);
    all.put("report", ReportCommand::new);
    all.put("recover", RecoverCommand::new);
    all.put("run", RunCommand::new);
    all.put("try-shapes", ShapesCommand::new);
    all.put("demo", DemoCommand::new);
    return all;
  }

  /** The words of every command. */
  public static List<String> names() {
    return List.copyOf(ALL.keySet());
  }

  /** The command of those words. */
  public static Optional<Command> named(String words, Session session) {
    return Optional.ofNullable(ALL.get(words)).map(command -> command.apply(session));
  }

  /** The second words of the commands that begin with a first one. */
  public static List<String> after(String first) {
    return ALL.keySet().stream()
        .filter(words -> words.startsWith(first + " "))
        .map(words -> words.substring(first.length() + 1))
        .toList();
  }
}

package jollycrate.cli.command;

import java.io.Console;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.DeliveryView;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.UsersView;
import jollycrate.secret.Secrets;
import jollycrate.server.ServerUser;
import jollycrate.server.Wish;

/** {@code jolly server users}. */
public final class ServerUsersCommand implements Command {
  private static final Option PASSWORD =
      Option.of(
          "--password", "REF", "where it stands: env:NAME or file:PATH; else it is asked for");
  private static final Option ROLES =
      Option.of("--roles", "LIST", "roles of the user, with commas between them");

  private final Session session;

  /** In a session. */
  public ServerUsersCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server users",
            "Show whom a server itself knows, or change one of them.",
            "They may log in to every application that leaves that to its server. Users of one"
                + " application alone stand in its jolly.toml.")
        .needs("NAME", "the server, as servers.toml names it")
        .takes("WHAT", "add, password, roles or remove; else everybody is listed")
        .takes("USER", "whom it is about")
        .takes(PASSWORD, ROLES, Option.DRY_RUN, Option.DIFF)
        .example("jolly server users shop", "who may log in, with which roles")
        .example(
            "jolly server users shop add robin --roles staff,mechanic --password env:ROBIN",
            "a salted hash is stored; a running server reads it without a restart")
        .example("jolly server users shop remove robin", "nobody else changes");
  }

  @Override
  public int run(Given given) {
    String server = given.operand(0).orElseThrow();
    Optional<String> what = given.operand(1);
    if (what.isEmpty()) {
      return list(given, server);
    }
    boolean dryRun = given.has(Option.DRY_RUN);
    DeliveryView view = new DeliveryView(session.screen(), dryRun || given.has(Option.DIFF));
    String user =
        given
            .operand(2)
            .orElseThrow(
                () -> new WrongUsage("USER is missing: whom '" + what.get() + "' is about"));
    return session.end(
        given,
        session
            .crate(given, view)
            .servers()
            .users(server, change(given, what.get(), user), dryRun));
  }

  private int list(Given given, String server) {
    session.interrupts().changesNothing();
    List<ServerUser> users = session.crate(given).servers().users(server);
    if (given.json()) {
      return session.ended(ExitCode.DONE, "users", users);
    }
    new UsersView(session.screen()).show(server, users);
    return ExitCode.DONE.code();
  }

  private Wish.UserChange change(Given given, String what, String user) {
    if (user.isBlank() || user.chars().anyMatch(Character::isISOControl)) {
      throw new WrongUsage("'" + user + "' is no name of a user");
    }
    return switch (what) {
      case "add" -> new Wish.Added(user, password(given, user), roles(given));
      case "password" -> new Wish.Password(user, password(given, user));
      case "roles" -> new Wish.Roles(user, roles(given));
      case "remove" -> new Wish.Removed(user);
      default ->
          throw new WrongUsage("'" + what + "' is none of 'add', 'password', 'roles' and 'remove'");
    };
  }

  private static List<String> roles(Given given) {
    return given
        .text(ROLES)
        .map(list -> Arrays.stream(list.split(",")).map(String::strip).toList())
        .map(list -> list.stream().filter(role -> !role.isEmpty()).toList())
        .orElseThrow(() -> new WrongUsage("--roles LIST is missing; an empty one is \"\""));
  }

  private String password(Given given, String user) {
    return given
        .text(PASSWORD)
        .map(
            reference ->
                session
                    .crate(given)
                    .servers()
                    .password(reference)
                    .orElseThrow(
                        () ->
                            new WrongUsage(
                                "a password on the command line is seen by everybody on this"
                                    + " machine: write env:NAME or file:PATH")))
        .orElseGet(() -> asked(user));
  }

  /** Whoever ends the input in place of a password wants nothing to be done. */
  private static String asked(Console console, String prompt) {
    char[] password = console.readPassword("%s", prompt);
    if (password == null) {
      throw new WrongUsage("no password was given");
    }
    return new String(password);
  }

  private String asked(String user) {
    Console console = System.console();
    if (console == null) {
      throw new WrongUsage("--password REF is missing, and there is no terminal to ask at");
    }
    String password = asked(console, "Password of " + user + ": ");
    String again = asked(console, "The same again: ");
    session.screen().secrets().hide(password, Secrets.HIDDEN);
    if (!password.equals(again)) {
      throw new WrongUsage("the two are not the same");
    }
    return password;
  }
}

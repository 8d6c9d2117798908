package jollycrate.foresee;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import jollycrate.host.Account;
import jollycrate.host.Ran;
import jollycrate.server.Server;

/** Whoever runs the server when root delivers can read what it is started from. */
final class AccountRule implements Rule {
  @Override
  public List<Finding> look(Scene scene) {
    return scene.account().map(account -> look(scene, account)).orElse(List.of());
  }

  private static String owned(Scene scene) {
    Server server = scene.stock().server();
    Path owned = scene.stock().owned();
    return owned.equals(server.folder()) ? "its folder" : server.shown(owned);
  }

  private static List<Finding> look(Scene scene, Account account) {
    Server server = scene.stock().server();
    List<Finding> findings = new ArrayList<>();
    findings.add(
        Finding.note(
            server.name(), "runs as " + account.name() + ", to whom " + owned(scene) + " belongs"));
    for (Path needed : List.of(server.runtime().javaProgram(), server.installation())) {
      List<String> test =
          Stream.concat(
                  account.become().stream(), Stream.of("/usr/bin/test", "-x", needed.toString()))
              .toList();
      Ran ran = scene.commands().run(test);
      if (ran.exit() != 0) {
        findings.add(
            Finding.blocker(
                needed.toString(),
                account.name() + " may not use it",
                ran.errors().strip(),
                needed.equals(server.installation())
                    ? "Name another 'installation' of the server in servers.toml, or put ours where"
                        + " everybody may read it, with JOLLY_DATA"
                    : "Name another 'java' of the server in servers.toml"));
      }
    }
    return findings;
  }
}

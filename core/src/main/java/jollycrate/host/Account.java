package jollycrate.host;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * A user of a host, as whom somebody else starts programs.
 *
 * @param name of the user
 * @param group number of the user's first group
 * @param home folder
 */
public record Account(String name, String group, Path home) {
  /** Name of the user who may do everything. */
  public static final String ROOT = "root";

  /** Goes before a command, so that it runs as this user (setpriv(1)). */
  public List<String> become() {
    return List.of("setpriv", "--reuid=" + name, "--regid=" + group, "--init-groups", "--");
  }

  /** A command as somebody runs it. */
  public static List<String> running(Optional<Account> account, List<String> command) {
    return Stream.concat(
            account.map(Account::become).stream().flatMap(List::stream), command.stream())
        .toList();
  }

  /** Variables that tell a program who runs it. */
  public Map<String, String> variables() {
    return Map.of("HOME", home.toString(), "USER", name, "LOGNAME", name);
  }
}

package jollycrate.host;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.file.Digests;

/**
 * A process to be started so that it stays.
 *
 * @param command program and arguments, one of which holds {@link #TOKEN}; no secrets
 * @param owned whose owner it runs as, when root starts it
 * @param environment everything the process sees; nothing is inherited
 * @param declared variables that somebody asked for, by name or as they are written; the others
 *     come and go with the shell that starts it
 * @param output file that its standard output and error are appended to
 * @param filesRead digests of files it reads only when it starts
 */
public record Launch(
    List<String> command,
    Path workingFolder,
    Path owned,
    Map<String, String> environment,
    List<String> declared,
    Path output,
    List<String> filesRead) {
  /** Stands for the token in an argument. */
  public static final String TOKEN = "{token}";

  /**
   * Equal for launches that make an equal process; values of variables that are not written are
   * left out.
   */
  public String fingerprint() {
    List<String> parts =
        List.of(
            command.toString(),
            declared.stream().sorted().toList().toString(),
            workingFolder.toString(),
            filesRead.toString());
    return Digests.of(String.join("\0", parts).getBytes(StandardCharsets.UTF_8));
  }

  /** Everything it sees when it runs as somebody; what tells who that is, unless asked for. */
  public Map<String, String> environmentOf(Optional<Account> account) {
    Map<String, String> seen = new HashMap<>(environment);
    account
        .map(Account::variables)
        .orElse(Map.of())
        .forEach(
            (name, value) -> seen.computeIfPresent(name, (is, ours) -> asked(is) ? ours : value));
    return seen;
  }

  private boolean asked(String variable) {
    return declared.stream()
        .anyMatch(told -> told.equals(variable) || told.startsWith(variable + "="));
  }

  /** The same with another command. */
  public Launch as(List<String> otherCommand) {
    return new Launch(otherCommand, workingFolder, owned, environment, declared, output, filesRead);
  }

  /** The argument that holds the token. */
  public String named(String token) {
    return commandWith(token).stream()
        .filter(argument -> argument.contains(token))
        .findFirst()
        .orElseThrow();
  }

  /** The command with its token. */
  public List<String> commandWith(String token) {
    return command.stream().map(argument -> argument.replace(TOKEN, token)).toList();
  }
}

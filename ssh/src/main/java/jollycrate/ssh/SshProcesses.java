package jollycrate.ssh;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import jollycrate.host.Access;
import jollycrate.host.Account;
import jollycrate.host.Bean;
import jollycrate.host.Fact;
import jollycrate.host.HeldLock;
import jollycrate.host.Hold;
import jollycrate.host.HostException;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.host.Life;
import jollycrate.host.LinuxProcesses;
import jollycrate.host.ProbedBeans;
import jollycrate.host.Proc;
import jollycrate.host.Question;
import jollycrate.host.Quote;
import jollycrate.host.Ran;

/** Processes of another machine. */
final class SshProcesses extends LinuxProcesses {
  private static final int NOTE_LIMIT_TENTHS = 100;
  private static final int MILLIS = 1000;

  private final SshSight sight;
  private final Wire wire;

  SshProcesses(SshSight sight, Wire wire) {
    this.sight = sight;
    this.wire = wire;
  }

  @Override
  protected Proc proc(Set<Proc.Part> parts) {
    return sight.proc(parts);
  }

  @Override
  protected boolean isFile(Path path) {
    return sight.read("[ -f " + Quote.word(path) + " ]").exit() == 0;
  }

  /** Goes before a command: a folder, and an environment of nothing else than this. */
  static String in(Path folder, Map<String, String> environment) {
    String exports =
        environment.entrySet().stream()
            .map(variable -> "export " + variable.getKey() + "=" + Quote.word(variable.getValue()))
            .collect(Collectors.joining("\n"));
    return "cd "
        + Quote.word(folder)
        + " || exit 125\n"
        + "for v in $(env | sed -n 's/^\\([A-Za-z_][A-Za-z0-9_]*\\)=.*/\\1/p'); do"
        + " unset \"$v\"; done\n"
        + exports
        + "\n";
  }

  private Shell.Reply changed(String script) {
    return sight.change(script, InputStream.nullInputStream(), 0);
  }

  @Override
  public Identity start(Launch launch, String token, Path note) {
    Optional<Account> account = accountIn(launch.owned());
    List<String> command = new ArrayList<>();
    account.ifPresent(found -> command.addAll(found.become()));
    command.addAll(List.of("/bin/sh", "-c", NOTE_THEN_BECOME, "jolly-" + token));
    command.addAll(List.of(note.toString(), launch.output().toString()));
    command.addAll(launch.commandWith(token));
    String noted = Quote.word(note);
    Shell.Reply reply =
        changed(
            "rm -f "
                + noted
                + "; s=$(command -v setsid)\n(\n"
                + in(launch.workingFolder(), launch.environmentOf(account))
                + "exec \"$s\" "
                + Quote.words(command)
                + ") >/dev/null 2>&1 </dev/null &\n"
                + "i=0; while [ ! -e "
                + noted
                + " ] && [ $i -lt "
                + NOTE_LIMIT_TENTHS
                + " ]; do sleep 0.1; i=$((i + 1)); done; cat "
                + noted);
    if (reply.exit() != 0) {
      throw new HostException(
          "Cannot start '"
              + launch.command().get(0)
              + "': the new process did not tell its id within "
              + NOTE_LIMIT_TENTHS / 10
              + " s");
    }
    return identityOf(Long.parseLong(reply.text().strip()));
  }

  @Override
  public Optional<Account> accountIn(Path folder) {
    Shell.Reply reply = sight.read(ReadScripts.owner(folder));
    String owner = reply.text().strip();
    return reply.exit() != 0 || owner.equals(Account.ROOT) ? Optional.empty() : account(owner);
  }

  @Override
  protected Optional<Account> account(String name) {
    return accountOf(sight.read("getent passwd " + Quote.word(name)).text());
  }

  @Override
  public Optional<Hold> hold(Path file, String content, Access access) {
    sight.settle();
    return HeldLock.take(new SshLocks(sight, wire), file, content, access);
  }

  /** The shell there: it ends with the line. */
  @Override
  public Identity self() {
    return identityOf(sight.pid());
  }

  @Override
  public Ran run(
      List<String> command,
      Path workingFolder,
      Map<String, String> environment,
      String input,
      Duration limit) {
    sight.settle();
    long seconds = Math.max(1, (limit.toMillis() + MILLIS - 1) / MILLIS);
    String script =
        "t=$(command -v timeout)\n"
            + in(workingFolder, environment)
            + "exec \"$t\" -s KILL "
            + seconds
            + " "
            + Quote.words(command)
            + "\n";
    try {
      sight.mustStand();
      return wire.connection().run(script, input, limit);
    } catch (IOException e) {
      throw HostException.cannot("run", Path.of(command.get(0)), e);
    }
  }

  @Override
  public Fact<List<Bean>> beans(Identity process, List<Question> questions) {
    if (life(process) != Life.RUNS) {
      return Fact.unknown("process " + process.pid() + " does not run");
    }
    Optional<Account> owner = accountIn(Path.of("/proc", String.valueOf(process.pid())));
    sight.settle();
    sight.mustStand();
    return ProbedBeans.ask(wire.connection()::run, process.pid(), owner, questions);
  }
}

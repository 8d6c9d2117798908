package jollycrate.host;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Processes of this machine. */
final class LocalProcesses extends LinuxProcesses {
  private static final Proc PROC = new LocalProc();
  private static final Duration LOOK_AGAIN = Duration.ofMillis(5);
  private static final Duration NOTE_LIMIT = Duration.ofSeconds(10);

  /** The direct child ends at once: a running child would hold up the exit of this Java process. */
  private static final String IN_A_SESSION_OF_ITS_OWN =
      "setsid sh -c \"$0\" \"$@\" >/dev/null 2>&1 </dev/null &";

  private final Time time = Time.system();

  @Override
  public Identity start(Launch launch, String token, Path note) {
    List<String> command = new ArrayList<>();
    Optional<Account> account = accountIn(launch.owned());
    account.ifPresent(found -> command.addAll(found.become()));
    command.addAll(List.of("/bin/sh", "-c", IN_A_SESSION_OF_ITS_OWN));
    command.addAll(List.of(NOTE_THEN_BECOME, "jolly-" + token));
    command.addAll(List.of(note.toString(), launch.output().toString()));
    command.addAll(launch.commandWith(token));
    try {
      Files.deleteIfExists(note);
      ProcessBuilder builder =
          new ProcessBuilder(command).directory(launch.workingFolder().toFile());
      builder.environment().clear();
      builder.environment().putAll(launch.environmentOf(account));
      builder.redirectErrorStream(true);
      Process shell = builder.start();
      shell.getOutputStream().close();
      shell.getInputStream().readAllBytes();
      return identityIn(note);
    } catch (IOException e) {
      throw HostException.cannot("start", Path.of(launch.command().get(0)), e);
    }
  }

  private Identity identityIn(Path note) throws IOException {
    long until = System.nanoTime() + NOTE_LIMIT.toNanos();
    while (System.nanoTime() < until) {
      if (Files.exists(note)) {
        long pid = Long.parseLong(Files.readString(note).strip());
        return identityOf(pid);
      }
      time.pause(LOOK_AGAIN);
    }
    throw new IOException(
        "the new process did not tell its id within " + NOTE_LIMIT.toSeconds() + " s");
  }

  @Override
  public Optional<Account> accountIn(Path folder) {
    try {
      if (!System.getProperty("user.name").equals(Account.ROOT) || Files.notExists(folder)) {
        return Optional.empty();
      }
      String owner = Files.getOwner(folder).getName();
      return owner.equals(Account.ROOT) ? Optional.empty() : account(owner);
    } catch (IOException e) {
      throw HostException.cannot("read the owner of", folder, e);
    }
  }

  @Override
  protected Proc proc(Set<Proc.Part> parts) {
    return PROC;
  }

  @Override
  protected boolean isFile(Path path) {
    return Files.isRegularFile(path);
  }

  @Override
  public Optional<Hold> hold(Path file, String content, Access access) {
    return HeldLock.take(new LocalHold(), file, content, access);
  }

  @Override
  public Identity self() {
    return identityOf(ProcessHandle.current().pid());
  }

  @Override
  public Ran run(
      List<String> command,
      Path workingFolder,
      Map<String, String> environment,
      String input,
      Duration limit) {
    return LocalRun.toItsEnd(command, workingFolder, environment, input, limit);
  }

  @Override
  public Fact<List<Bean>> beans(Identity process, List<Question> questions) {
    if (life(process) != Life.RUNS) {
      return Fact.unknown("process " + process.pid() + " does not run");
    }
    Optional<Account> owner = accountIn(Path.of("/proc", String.valueOf(process.pid())));
    return owner.isEmpty()
        ? LocalJmx.ask(process.pid(), questions)
        : ProbedBeans.ask(LocalProcesses::shell, process.pid(), owner, questions);
  }

  private static Ran shell(String script, String input, Duration limit) {
    List<String> command = List.of("/bin/sh", "-c", script);
    Map<String, String> environment = Map.of("PATH", System.getenv().getOrDefault("PATH", ""));
    return LocalRun.toItsEnd(command, Path.of("/"), environment, input, limit);
  }
}

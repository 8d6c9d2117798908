package jollycrate.host;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;

/** Processes of this machine, as Linux tells them. */
final class LocalProcesses implements HostProcesses {
  private static final Map<String, String> PROGRAMS = Map.of("PATH", "/usr/bin:/bin");
  private static final Duration LOOK_AGAIN = Duration.ofMillis(5);
  private static final Duration SIGNAL_LIMIT = Duration.ofSeconds(5);
  private static final Duration NOTE_LIMIT = Duration.ofSeconds(10);

  /**
   * The shell notes its process id durably and then becomes the program, so that the id is known
   * before the program begins.
   */
  private static final String NOTE_THEN_BECOME =
      """
      note=$1; out=$2; shift 2
      umask 027
      echo $$ >"$note.part" && sync "$note.part" && mv -f "$note.part" "$note" &&
        exec "$@" >>"$out" 2>&1 </dev/null
      """;

  /** The direct child ends at once: a running child would hold up the exit of this Java process. */
  private static final String IN_A_SESSION_OF_ITS_OWN =
      "setsid sh -c \"$0\" \"$@\" >/dev/null 2>&1 </dev/null &";

  private final Time time = Time.system();

  @Override
  public Identity start(Launch launch, String token, Path note) {
    List<String> command = new ArrayList<>();
    accountIn(launch.workingFolder()).ifPresent(account -> command.addAll(account.become()));
    command.addAll(List.of("/bin/sh", "-c", IN_A_SESSION_OF_ITS_OWN));
    command.addAll(List.of(NOTE_THEN_BECOME, "jolly-" + token));
    command.addAll(List.of(note.toString(), launch.output().toString()));
    command.addAll(launch.commandWith(token));
    try {
      Files.deleteIfExists(note);
      ProcessBuilder builder =
          new ProcessBuilder(command).directory(launch.workingFolder().toFile());
      builder.environment().clear();
      builder.environment().putAll(launch.environment());
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
        return new Identity(boot(), pid, ProcFs.ticks(pid).orElse(0));
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

  /** The fields of passwd(5): name, password, user, group, comment, home, shell. */
  private Optional<Account> account(String name) {
    List<String> command = List.of("getent", "passwd", name);
    Ran ran = run(command, Path.of("/"), PROGRAMS, "", SIGNAL_LIMIT);
    String[] fields = ran.output().strip().split(":", -1);
    return fields.length < 7
        ? Optional.empty()
        : Optional.of(new Account(fields[0], fields[3], Path.of(fields[5])));
  }

  @Override
  public Optional<Identity> withToken(String token) {
    long own = ProcessHandle.current().pid();
    return ProcFs.firstProcess(
            pid -> pid != own && ProcFs.arguments(pid).stream().anyMatch(a -> a.contains(token)))
        .map(pid -> new Identity(boot(), pid, ProcFs.ticks(pid).orElse(0)));
  }

  @Override
  public Identity self() {
    long pid = ProcessHandle.current().pid();
    return new Identity(boot(), pid, ProcFs.ticks(pid).orElse(0));
  }

  @Override
  public String boot() {
    return ProcFs.boot();
  }

  @Override
  public boolean alive(Identity process) {
    OptionalLong ticks = ProcFs.ticks(process.pid());
    return process.boot().equals(boot())
        && ticks.isPresent()
        && ticks.getAsLong() == process.ticks();
  }

  @Override
  public void signal(Identity process, Signal signal) {
    if (!alive(process)) {
      return;
    }
    Path root = Path.of("/");
    List<String> command = List.of("kill", "-" + signal, "" + process.pid());
    Ran ran = run(command, root, PROGRAMS, "", SIGNAL_LIMIT);
    if (ran.exit() != 0 && alive(process)) {
      throw new HostException(
          "Cannot signal process " + process.pid() + ": " + ran.errors().strip());
    }
  }

  @Override
  public Ran run(
      List<String> command,
      Path workingFolder,
      Map<String, String> environment,
      String input,
      Duration limit) {
    ProcessBuilder builder = new ProcessBuilder(command).directory(workingFolder.toFile());
    builder.environment().clear();
    builder.environment().putAll(environment);
    try {
      Process process = builder.start();
      CompletableFuture<String> output = reading(process.getInputStream());
      CompletableFuture<String> errors = reading(process.getErrorStream());
      try (OutputStream in = process.getOutputStream()) {
        in.write(input.getBytes(StandardCharsets.UTF_8));
      } catch (IOException ended) {
        return new Ran(waitFor(process, limit), output.join(), errors.join());
      }
      return new Ran(waitFor(process, limit), output.join(), errors.join());
    } catch (IOException e) {
      throw HostException.cannot("run", Path.of(command.get(0)), e);
    }
  }

  private static int waitFor(Process process, Duration limit) {
    try {
      if (process.waitFor(limit.toMillis(), TimeUnit.MILLISECONDS)) {
        return process.exitValue();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    process.destroyForcibly();
    return -1;
  }

  private static CompletableFuture<String> reading(InputStream in) {
    CompletableFuture<String> text = new CompletableFuture<>();
    Thread reader =
        new Thread(
            () -> {
              try (in) {
                text.complete(new String(in.readAllBytes(), StandardCharsets.UTF_8));
              } catch (IOException e) {
                text.complete("");
              }
            });
    reader.setDaemon(true);
    reader.start();
    return text;
  }

  @Override
  public Optional<Listening> listening(int port) {
    return ProcFs.listener(port)
        .map(
            inode ->
                ProcFs.holderOf(inode)
                    .map(pid -> new Listening(port, pid, programOf(pid)))
                    .orElse(new Listening(port, 0, "a program of another user")));
  }

  @Override
  public Set<Integer> ports(Collection<Identity> processes) {
    Map<String, Integer> listeners = ProcFs.listeners();
    Set<Integer> ports = new TreeSet<>();
    for (long pid :
        ProcFs.kin(processes.stream().filter(this::alive).map(Identity::pid).toList())) {
      ProcFs.sockets(pid).stream()
          .filter(listeners::containsKey)
          .map(listeners::get)
          .forEach(ports::add);
    }
    return ports;
  }

  @Override
  public Set<Identity> acceptors(int port) {
    return ProcFs.listener(port).map(ProcFs::holdersOf).orElse(List.of()).stream()
        .map(pid -> new Identity(boot(), pid, ProcFs.ticks(pid).orElse(0)))
        .collect(Collectors.toSet());
  }

  @Override
  public long memory(Identity process) {
    return alive(process)
        ? ProcFs.kin(List.of(process.pid())).stream().mapToLong(ProcFs::memory).sum()
        : 0;
  }

  @Override
  public long connections(int port) {
    return ProcFs.connections(port);
  }

  private static String programOf(long pid) {
    List<String> arguments = ProcFs.arguments(pid);
    if (arguments.isEmpty()) {
      return "process " + pid;
    }
    Path program = Path.of(arguments.get(0)).getFileName();
    String instance =
        arguments.stream()
            .filter(argument -> argument.startsWith("-Dcatalina.base="))
            .map(argument -> " of the server in " + argument.substring(argument.indexOf('=') + 1))
            .findFirst()
            .orElseGet(() -> whatItRuns(arguments));
    return program + instance;
  }

  private static String whatItRuns(List<String> arguments) {
    int jar = arguments.indexOf("-jar");
    if (jar > 0 && jar + 1 < arguments.size()) {
      return " -jar " + Path.of(arguments.get(jar + 1)).getFileName();
    }
    return arguments.size() > 1 ? " " + brief(arguments.get(1)) : "";
  }

  private static String brief(String argument) {
    return argument.length() > 60 ? argument.substring(0, 57) + "..." : argument;
  }
}

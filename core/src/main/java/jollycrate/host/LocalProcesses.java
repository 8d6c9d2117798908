package jollycrate.host;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Supplier;

/** Processes of this machine, as Linux tells them. */
final class LocalProcesses implements HostProcesses {
  private static final Map<String, String> PROGRAMS =
      Map.of("PATH", "/usr/bin:/bin", "LC_ALL", "C");
  private static final long FIRST_PROCESS = 1;
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
  public Fact<List<Program>> programs(String argument) {
    return reading(
        () -> {
          List<Program> found =
              ProcFs.processes().stream()
                  .map(pid -> Map.entry(pid, ProcFs.arguments(pid)))
                  .filter(process -> process.getValue().contains(argument))
                  .flatMap(process -> program(process.getKey(), process.getValue()).stream())
                  .sorted(Comparator.comparingLong(program -> program.identity().ticks()))
                  .toList();
          return found.isEmpty() && ProcFs.hidesOthers()
              ? Fact.unknown("processes of other users are hidden here (hidepid)")
              : Fact.known(found);
        });
  }

  private Optional<Program> program(long pid, List<String> arguments) {
    return identity(pid).map(identity -> new Program(identity, arguments));
  }

  private static <T> Fact<T> reading(Supplier<Fact<T>> look) {
    try {
      return look.get();
    } catch (ProcFs.Unreadable e) {
      return Fact.unknown(e.getMessage());
    }
  }

  @Override
  public Optional<Hold> hold(Path file, String content, Access access) {
    return LocalHold.take(file, content, access);
  }

  private Optional<Identity> identity(long pid) {
    OptionalLong ticks = ProcFs.ticks(pid);
    return ticks.isPresent()
        ? Optional.of(new Identity(boot(), ProcFs.space(), pid, ticks.getAsLong()))
        : Optional.empty();
  }

  /** A process that ended at once is one that started at no tick. */
  private Identity identityOf(long pid) {
    return identity(pid).orElse(new Identity(boot(), ProcFs.space(), pid, 0));
  }

  @Override
  public Identity self() {
    return identityOf(ProcessHandle.current().pid());
  }

  @Override
  public String boot() {
    return ProcFs.boot();
  }

  @Override
  public Life life(Identity process) {
    if (!process.boot().equals(boot())) {
      return Life.GONE;
    }
    boolean counted = process.space() == null || process.space().isEmpty();
    if (!counted && !process.space().equals(ProcFs.space())) {
      return Life.UNKNOWN;
    }
    try {
      OptionalLong ticks = ProcFs.ticks(process.pid());
      if (ticks.isPresent()) {
        return ticks.getAsLong() == process.ticks() ? Life.RUNS : Life.GONE;
      }
      return ProcFs.hidesOthers() ? lifeOfTheHidden(process) : Life.GONE;
    } catch (ProcFs.Unreadable e) {
      return Life.UNKNOWN;
    }
  }

  /** Asking for a signal that does nothing tells no process from one that may not be signalled. */
  private Life lifeOfTheHidden(Identity process) {
    List<String> command = List.of("/bin/sh", "-c", "kill -0 " + process.pid());
    Ran ran = run(command, Path.of("/"), PROGRAMS, "", SIGNAL_LIMIT);
    return ran.errors().contains("No such process") ? Life.GONE : Life.UNKNOWN;
  }

  @Override
  public void signal(Identity process, Signal signal) {
    if (life(process) == Life.GONE) {
      return;
    }
    Path root = Path.of("/");
    List<String> command = List.of("kill", "-" + signal, "" + process.pid());
    Ran ran = run(command, root, PROGRAMS, "", SIGNAL_LIMIT);
    if (ran.exit() != 0 && life(process) != Life.GONE) {
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
    return LocalRun.toItsEnd(command, workingFolder, environment, input, limit);
  }

  @Override
  public Fact<Optional<Listening>> listening(int port) {
    return reading(() -> Fact.known(ProcFs.listener(port).map(LocalProcesses::listening)));
  }

  /** Whose a socket is may stay unknown; that somebody listens does not. */
  private static Listening listening(TcpSocket socket) {
    return seenHolders(socket.inode()).stream()
        .min(Comparator.naturalOrder())
        .map(pid -> new Listening(socket.port(), socket.address(), pid, programOf(pid)))
        .orElse(new Listening(socket.port(), socket.address(), 0, "a program of another user"));
  }

  @Override
  public Fact<Set<Integer>> ports(Collection<Identity> processes) {
    return reading(
        () -> {
          Map<String, Integer> listeners = ProcFs.listeners();
          Set<Integer> ports = new TreeSet<>();
          List<Long> running = processes.stream().filter(this::mayRun).map(Identity::pid).toList();
          for (long pid : ProcFs.kin(running)) {
            ProcFs.sockets(pid).stream()
                .filter(listeners::containsKey)
                .map(listeners::get)
                .forEach(ports::add);
          }
          return Fact.known(ports);
        });
  }

  @Override
  public Fact<Set<Identity>> acceptors(int port) {
    return reading(
        () -> {
          Optional<String> inode = ProcFs.listener(port).map(TcpSocket::inode);
          Set<Long> holders = inode.map(LocalProcesses::seenHolders).orElse(Set.of());
          if (inode.isPresent() && holders.isEmpty()) {
            return Fact.unknown("the processes behind port " + port + " belong to another user");
          }
          Set<Identity> acceptors = new HashSet<>();
          Set<Long> family = ProcFs.kin(holders);
          holders.forEach(pid -> family.add(ProcFs.parent(pid)));
          for (long pid : family) {
            if (pid > FIRST_PROCESS && ProcFs.sockets(pid).contains(inode.get())) {
              acceptors.add(identityOf(pid));
            }
          }
          return Fact.known(acceptors);
        });
  }

  /** Those that show what they have open; who opened it, and their kin, may hide it. */
  private static Set<Long> seenHolders(String inode) {
    Set<Long> holders = new HashSet<>();
    for (long pid : ProcFs.processes()) {
      try {
        if (ProcFs.sockets(pid).contains(inode)) {
          holders.add(pid);
        }
      } catch (ProcFs.Unreadable anotherUsers) {
        continue;
      }
    }
    return holders;
  }

  @Override
  public Fact<Optional<Path>> output(Identity process) {
    return reading(() -> Fact.known(ProcFs.output(process.pid())));
  }

  @Override
  public Fact<List<Bean>> beans(Identity process, List<Question> questions) {
    return life(process) == Life.RUNS
        ? LocalJmx.ask(process.pid(), questions)
        : Fact.unknown("process " + process.pid() + " does not run");
  }

  @Override
  public long memory(Identity process) {
    return life(process) == Life.RUNS
        ? ProcFs.kin(List.of(process.pid())).stream().mapToLong(ProcFs::memory).sum()
        : 0;
  }

  @Override
  public Fact<Long> connections(int port) {
    return reading(() -> Fact.known(ProcFs.connections(port)));
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

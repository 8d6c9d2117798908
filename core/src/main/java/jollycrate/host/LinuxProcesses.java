package jollycrate.host;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.Predicate;

/** Processes as Linux tells of them; how they are started and run is up to each host. */
public abstract class LinuxProcesses implements HostProcesses {
  /** What the system's own programs see. */
  protected static final Map<String, String> PROGRAMS =
      Map.of("PATH", "/usr/bin:/bin", "LC_ALL", "C");

  /** How long one of them may take. */
  protected static final Duration PROGRAM_LIMIT = Duration.ofSeconds(5);

  /**
   * The shell notes its process id durably and then becomes the program, so that the id is known
   * before the program begins. What that writes is as readable for others as the folder is that it
   * works in; that of its output is made where it is not there yet.
   */
  protected static final String NOTE_THEN_BECOME =
      """
      note=$1; out=$2; shift 2
      case $(stat -c %A .) in ???????r*) umask 022 ;; *) umask 027 ;; esac
      mkdir -p "${out%/*}"
      echo $$ >"$note.part" && sync "$note.part" && mv -f "$note.part" "$note" &&
        exec "$@" >>"$out" 2>&1 </dev/null
      """;

  private static final Path ROOT = Path.of("/");
  private static final long FIRST_PROCESS = 1;

  /** What {@code /proc} tells now, of the parts asked for at least. */
  protected abstract Proc proc(Set<Proc.Part> parts);

  /** Whether a file stands there, links followed. */
  protected abstract boolean isFile(Path path);

  private ProcFs table(Proc.Part... parts) {
    Set<Proc.Part> asked = EnumSet.noneOf(Proc.Part.class);
    asked.addAll(List.of(parts));
    return new ProcFs(proc(asked));
  }

  private <T> Fact<T> reading(Function<ProcFs, Fact<T>> look, Proc.Part... parts) {
    try {
      return look.apply(table(parts));
    } catch (Proc.Unreadable e) {
      return Fact.unknown(e.getMessage());
    }
  }

  @Override
  public Fact<List<Program>> programs(Predicate<List<String>> such) {
    return reading(
        proc -> {
          List<Program> found =
              proc.processes().stream()
                  .map(pid -> Map.entry(pid, proc.arguments(pid)))
                  .filter(process -> such.test(process.getValue()))
                  .flatMap(process -> program(proc, process.getKey(), process.getValue()).stream())
                  .sorted(Comparator.comparingLong(program -> program.identity().ticks()))
                  .toList();
          return found.isEmpty() && proc.hidesOthers()
              ? Fact.unknown("processes of other users are hidden here (hidepid)")
              : Fact.known(found);
        },
        Proc.Part.STATES,
        Proc.Part.ARGUMENTS);
  }

  @Override
  public Fact<Path> workingFolder(Identity process) {
    String link = "/proc/" + process.pid() + "/cwd";
    Ran ran = run(List.of("readlink", link), ROOT, PROGRAMS, "", PROGRAM_LIMIT);
    String folder = ran.output().strip();
    return ran.exit() == 0 && folder.startsWith("/")
        ? Fact.known(Path.of(folder))
        : Fact.unknown("where process " + process.pid() + " works cannot be read");
  }

  private static Optional<Program> program(ProcFs proc, long pid, List<String> arguments) {
    return identity(proc, pid).map(identity -> new Program(identity, arguments));
  }

  private static Optional<Identity> identity(ProcFs proc, long pid) {
    OptionalLong ticks = proc.ticks(pid);
    return ticks.isPresent()
        ? Optional.of(new Identity(proc.boot(), proc.space(), pid, ticks.getAsLong()))
        : Optional.empty();
  }

  /** A process that ended at once is one that started at no tick. */
  private static Identity identityOf(ProcFs proc, long pid) {
    return identity(proc, pid).orElse(new Identity(proc.boot(), proc.space(), pid, 0));
  }

  /** The process that has an id now. */
  protected Identity identityOf(long pid) {
    return identityOf(table(Proc.Part.STATES), pid);
  }

  @Override
  public String boot() {
    return table().boot();
  }

  @Override
  public Life life(Identity process) {
    ProcFs proc = table(Proc.Part.STATES);
    if (proc.boot().isEmpty()) {
      return Life.UNKNOWN;
    }
    if (!process.boot().equals(proc.boot())) {
      return Life.GONE;
    }
    boolean counted = process.space() == null || process.space().isEmpty();
    if (!counted && !process.space().equals(proc.space())) {
      return Life.UNKNOWN;
    }
    try {
      OptionalLong ticks = proc.ticks(process.pid());
      if (ticks.isPresent()) {
        return ticks.getAsLong() == process.ticks() ? Life.RUNS : Life.GONE;
      }
      return proc.hidesOthers() ? lifeOfTheHidden(process) : Life.GONE;
    } catch (Proc.Unreadable e) {
      return Life.UNKNOWN;
    }
  }

  /** Asking for a signal that does nothing tells no process from one that may not be signalled. */
  private Life lifeOfTheHidden(Identity process) {
    List<String> command = List.of("/bin/sh", "-c", "kill -0 " + process.pid());
    Ran ran = run(command, ROOT, PROGRAMS, "", PROGRAM_LIMIT);
    return ran.errors().contains("No such process") ? Life.GONE : Life.UNKNOWN;
  }

  @Override
  public void signal(Identity process, Signal signal) {
    if (life(process) == Life.GONE) {
      return;
    }
    List<String> command = List.of("kill", "-" + signal, "" + process.pid());
    Ran ran = run(command, ROOT, PROGRAMS, "", PROGRAM_LIMIT);
    if (ran.exit() != 0 && life(process) != Life.GONE) {
      throw new HostException(
          "Cannot signal process " + process.pid() + ": " + ran.errors().strip());
    }
  }

  /** A user of the host; the fields of passwd(5). */
  protected Optional<Account> account(String name) {
    Ran ran = run(List.of("getent", "passwd", name), ROOT, PROGRAMS, "", PROGRAM_LIMIT);
    return accountOf(ran.output());
  }

  /** The user that a line of passwd(5) is about. */
  protected static Optional<Account> accountOf(String line) {
    String[] fields = line.strip().split(":", -1);
    return fields.length < 7
        ? Optional.empty()
        : Optional.of(new Account(fields[0], fields[3], Path.of(fields[5])));
  }

  @Override
  public Fact<List<Listening>> listeners() {
    return reading(
        proc ->
            Fact.known(
                proc.listening()
                    .map(socket -> listening(proc, socket))
                    .sorted(Comparator.comparingInt(Listening::port))
                    .toList()),
        Proc.Part.STATES,
        Proc.Part.ARGUMENTS,
        Proc.Part.OPEN_FILES,
        Proc.Part.SOCKETS);
  }

  @Override
  public Fact<Optional<Listening>> listening(int port, String address) {
    return reading(
        proc -> Fact.known(proc.listener(port, address).map(socket -> listening(proc, socket))),
        Proc.Part.STATES,
        Proc.Part.ARGUMENTS,
        Proc.Part.OPEN_FILES,
        Proc.Part.SOCKETS);
  }

  /** Whose a socket is may stay unknown; that somebody listens does not. */
  private static Listening listening(ProcFs proc, TcpSocket socket) {
    return seenHolders(proc, socket.inode()).stream()
        .min(Comparator.naturalOrder())
        .map(pid -> new Listening(socket.port(), socket.address(), pid, programOf(proc, pid)))
        .orElse(new Listening(socket.port(), socket.address(), 0, "a program of another user"));
  }

  @Override
  public Fact<Set<Integer>> ports(Collection<Identity> processes) {
    return reading(
        proc -> {
          Map<String, Integer> listeners = proc.listeners();
          Set<Integer> ports = new TreeSet<>();
          List<Long> running = processes.stream().filter(this::mayRun).map(Identity::pid).toList();
          for (long pid : proc.kin(running)) {
            proc.sockets(pid).stream()
                .filter(listeners::containsKey)
                .map(listeners::get)
                .forEach(ports::add);
          }
          return Fact.known(ports);
        },
        Proc.Part.STATES,
        Proc.Part.OPEN_FILES,
        Proc.Part.SOCKETS);
  }

  @Override
  public Fact<Set<Identity>> acceptors(int port) {
    return reading(
        proc -> acceptors(proc, port), Proc.Part.STATES, Proc.Part.OPEN_FILES, Proc.Part.SOCKETS);
  }

  private static Fact<Set<Identity>> acceptors(ProcFs proc, int port) {
    Optional<String> inode = proc.listener(port).map(TcpSocket::inode);
    Set<Long> holders = inode.map(socket -> seenHolders(proc, socket)).orElse(Set.of());
    if (inode.isPresent() && holders.isEmpty()) {
      return Fact.unknown("the processes behind port " + port + " belong to another user");
    }
    Set<Identity> acceptors = new HashSet<>();
    Set<Long> family = proc.kin(holders);
    holders.forEach(pid -> family.add(proc.parent(pid)));
    for (long pid : family) {
      if (pid > FIRST_PROCESS && proc.sockets(pid).contains(inode.get())) {
        acceptors.add(identityOf(proc, pid));
      }
    }
    return Fact.known(acceptors);
  }

  /** Those that show what they have open; who opened it, and their kin, may hide it. */
  private static Set<Long> seenHolders(ProcFs proc, String inode) {
    Set<Long> holders = new HashSet<>();
    for (long pid : proc.processes()) {
      try {
        if (proc.sockets(pid).contains(inode)) {
          holders.add(pid);
        }
      } catch (Proc.Unreadable anotherUsers) {
        continue;
      }
    }
    return holders;
  }

  @Override
  public Fact<Optional<Path>> output(Identity process) {
    return reading(
        proc ->
            Fact.known(
                Optional.of(proc.output(process.pid()))
                    .filter(target -> target.startsWith("/"))
                    .map(Path::of)
                    .filter(this::isFile)),
        Proc.Part.OPEN_FILES);
  }

  @Override
  public long memory(Identity process) {
    ProcFs proc = table(Proc.Part.STATES, Proc.Part.MEMORY);
    return life(process) == Life.RUNS
        ? proc.kin(List.of(process.pid())).stream().mapToLong(proc::memory).sum()
        : 0;
  }

  @Override
  public Fact<Long> connections(int port) {
    return reading(proc -> Fact.known(proc.connections(port)), Proc.Part.SOCKETS);
  }

  private static String programOf(ProcFs proc, long pid) {
    List<String> arguments = proc.arguments(pid);
    if (arguments.isEmpty()) {
      return "process " + pid;
    }
    if (arguments.get(0).contains(": ")) {
      return arguments.get(0).substring(0, arguments.get(0).indexOf(": "));
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

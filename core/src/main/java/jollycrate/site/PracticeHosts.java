package jollycrate.site;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.SortedSet;
import java.util.TreeSet;
import java.util.stream.IntStream;
import jollycrate.app.HostEntry;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ServersEdit;
import jollycrate.app.ServersFile;
import jollycrate.app.Setting;
import jollycrate.file.IoReason;
import jollycrate.host.Fact;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.Listening;
import jollycrate.host.StandIn;
import jollycrate.host.StandIns;
import jollycrate.host.Time;
import jollycrate.json.Json;

/** Practice hosts: stand-ins for other machines, each in a folder of its own on this one. */
public final class PracticeHosts {
  private static final int SSH_PORT = 2222;
  private static final int FIRST = 21;
  private static final int LAST = 254;

  private final Host host;
  private final Setting setting;
  private final Time time;

  /** On this machine. */
  public PracticeHosts(Host host, Setting setting, Time time) {
    this.host = host;
    this.setting = setting;
    this.time = time;
  }

  /** The folder of a machine that is a practice host; empty for any other. */
  static Optional<Path> folder(HostEntry entry) {
    return entry
        .config()
        .map(Path::getParent)
        .filter(folder -> Files.isRegularFile(StandIn.in(folder)));
  }

  /** What stands in for a machine; empty where it is a real one. */
  public static Optional<StandIn> of(HostEntry entry) {
    return folder(entry).map(PracticeHosts::read);
  }

  private static StandIn read(Path folder) {
    Path file = StandIn.in(folder);
    try {
      return Json.read(Files.readAllBytes(file), StandIn.class)
          .orElseThrow(
              () ->
                  new NotDescribedException(
                      "Cannot read '"
                          + file
                          + "': it is not as jolly wrote it. Delete '"
                          + folder
                          + "' and make the practice host again"));
    } catch (IOException e) {
      throw HostException.cannot("read", file, e);
    }
  }

  private static void write(Path folder, StandIn standIn) {
    Path beside = StandIn.in(folder).resolveSibling(".stand-in.json.part");
    try {
      Files.writeString(beside, Json.line(standIn) + "\n");
      Files.move(
          beside,
          StandIn.in(folder),
          StandardCopyOption.ATOMIC_MOVE,
          StandardCopyOption.REPLACE_EXISTING);
    } catch (IOException e) {
      throw HostException.cannot("write", StandIn.in(folder), e);
    }
  }

  /**
   * Makes one and starts it.
   *
   * @param described machines that are described already
   */
  public StandIn make(String name, List<HostEntry> described, Path serversFile) {
    Path folder = serversFile.resolveSibling("hosts").resolve(name);
    mustBeNew(name, folder, described);
    StandIn standIn = unlike(described, name);
    try {
      Files.createDirectories(folder.getParent());
      Files.createDirectory(folder);
      Files.writeString(folder.resolve(".gitignore"), "# Keys of a practice host\n*\n");
      kit().prepare(folder, standIn);
      write(folder, standIn);
      process(name, folder).start(kit());
      ServersEdit.add(
          serversFile,
          new HostEntry(
              name,
              name,
              Optional.of(StandIn.configuration(folder)),
              Optional.empty(),
              HostEntry.SSH_KEEP,
              Optional.empty(),
              Optional.empty()));
    } catch (IOException | RuntimeException e) {
      process(name, folder).kill();
      host.files().deleteTree(folder);
      throw e instanceof RuntimeException known
          ? known
          : cannotMake(name, "'" + folder + "': " + IoReason.of((IOException) e));
    }
    return standIn;
  }

  private static void mustBeNew(String name, Path folder, List<HostEntry> described) {
    if (!name.matches(ServersFile.NAME_FORM)) {
      throw cannotMake(name, "it is no name. Use letters, digits, _ and - only");
    }
    if (described.stream().anyMatch(other -> other.name().equals(name))) {
      throw cannotMake(name, "servers.toml describes it already. Choose another name");
    }
    if (Files.exists(folder)) {
      throw cannotMake(
          name,
          "'"
              + folder
              + "' exists already. Delete it, if it is an old one, or choose another name");
    }
  }

  private static NotDescribedException cannotMake(String name, String why) {
    return new NotDescribedException("Cannot make practice host '" + name + "': " + why);
  }

  /** Each has an address of its own, and one inside: all of 127/8 leads to this machine. */
  private StandIn unlike(List<HostEntry> described, String name) {
    List<String> taken =
        described.stream().flatMap(entry -> of(entry).stream()).map(StandIn::address).toList();
    int last =
        IntStream.rangeClosed(FIRST, LAST)
            .filter(number -> !taken.contains("127.0.0." + number))
            .filter(number -> isFree("127.0.0." + number))
            .findFirst()
            .orElseThrow(() -> cannotMake(name, "every address for one is taken"));
    return new StandIn(name, "127.0.0." + last, "127.1.0." + last, SSH_PORT, new TreeSet<>());
  }

  private boolean isFree(String address) {
    Fact<Optional<Listening>> found = host.processes().listening(SSH_PORT, address);
    return found.map(Optional::isEmpty).orElse(false);
  }

  private static StandIns kit() {
    return ServiceLoader.load(StandIns.class).findFirst().orElseThrow();
  }

  /**
   * Lets in what comes for a port, or does not any more; in force when this returns.
   *
   * @return the stand-in as it is now
   */
  public StandIn let(HostEntry entry, int port, boolean in) {
    Path folder = practice(entry, in ? "open a port of" : "close a port of");
    StandIn before = read(folder);
    if (port == before.port()) {
      throw new NotDescribedException(
          "Cannot "
              + (in ? "open" : "close")
              + " port "
              + port
              + " of '"
              + entry.name()
              + "': it is the one of its SSH server, which is always open");
    }
    SortedSet<Integer> open = new TreeSet<>(before.open());
    if (in) {
      open.add(port);
    } else {
      open.remove(port);
    }
    StandIn after = before.letting(List.copyOf(open));
    write(folder, after);
    StandInProcess process = process(entry.name(), folder);
    if (process.runs()) {
      process.awaitInForce();
    }
    return after;
  }

  /** Starts one; false when it runs already. */
  public boolean start(HostEntry entry) {
    Path folder = practice(entry, "start");
    StandInProcess process = process(entry.name(), folder);
    if (process.runs()) {
      return false;
    }
    process.start(kit());
    return true;
  }

  /**
   * Stops one; false when it does not run.
   *
   * @param busy servers that run on it, which would be out of reach
   */
  public boolean stop(HostEntry entry, List<String> busy) {
    Path folder = practice(entry, "stop");
    StandInProcess process = process(entry.name(), folder);
    if (!process.runs()) {
      return false;
    }
    if (!busy.isEmpty()) {
      throw new NotDescribedException(
          "Cannot stop '"
              + entry.name()
              + "': "
              + String.join(", ", busy)
              + ", which nobody would reach any more. Stop it first: jolly server stop NAME");
    }
    process.end();
    return true;
  }

  /** Whether one is not known to be down. */
  public boolean mayRun(HostEntry entry) {
    return folder(entry).filter(folder -> process(entry.name(), folder).mayRun()).isPresent();
  }

  private StandInProcess process(String name, Path folder) {
    return new StandInProcess(host, setting.java(), time, name, folder);
  }

  private static Path practice(HostEntry entry, String verb) {
    return folder(entry)
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot "
                        + verb
                        + " '"
                        + entry.name()
                        + "': it is no practice host. That is up to its own rules and those of its"
                        + " provider"));
  }
}

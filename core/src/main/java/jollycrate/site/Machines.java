package jollycrate.site;

import java.net.Socket;
import java.util.Map;
import java.util.Optional;
import java.util.ServiceLoader;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Function;
import java.util.function.Supplier;
import jollycrate.app.HostEntry;
import jollycrate.host.Host;
import jollycrate.host.HostLine;
import jollycrate.host.HostLines;
import jollycrate.host.Reach;
import jollycrate.host.StandIn;
import jollycrate.host.UnreachableException;
import jollycrate.secret.Secrets;

/** The machines that servers are on; each is connected to once, when it is asked for. */
public final class Machines implements AutoCloseable {
  private final Host local;
  private final Secrets secrets;
  private final PracticeHosts practice;
  private final Function<String, HostEntry> entries;
  private final Map<String, FutureTask<HostLine>> open = new ConcurrentHashMap<>();

  /**
   * @param entries described machines, by name
   */
  public Machines(
      Host local, Secrets secrets, PracticeHosts practice, Function<String, HostEntry> entries) {
    this.local = local;
    this.secrets = secrets;
    this.practice = practice;
    this.entries = entries;
  }

  /** How machines are reached. */
  public static HostLines lines() {
    return ServiceLoader.load(HostLines.class).findFirst().orElseThrow();
  }

  /** How a machine is reached, as it is described. */
  public Reach reach(HostEntry entry) {
    return new Reach(
        entry.name(),
        entry.ssh(),
        entry.config(),
        entry.sudo(),
        entry.sshKeep(),
        entry.password().map(reference -> () -> secrets.resolve(reference)),
        entry.keyPassword().map(reference -> () -> secrets.resolve(reference)));
  }

  /**
   * The machine of that name; without one, this machine.
   *
   * @throws jollycrate.host.UnreachableException when it cannot be reached
   */
  public Host named(Optional<String> name) {
    return name.map(told -> line(told).host()).orElse(local);
  }

  /**
   * The connection to the machine of that name, which stays open as long as the tool runs. One that
   * was not reached is not tried again.
   *
   * @throws jollycrate.host.UnreachableException when it cannot be reached
   */
  public HostLine line(String name) {
    FutureTask<HostLine> line = opening(name);
    line.run();
    try {
      return line.get();
    } catch (ExecutionException e) {
      throw e.getCause() instanceof RuntimeException why
          ? why
          : new IllegalStateException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new UnreachableException("Cannot reach '" + name + "': interrupted");
    }
  }

  /** Begins to connect to several, so that nobody waits for one after another. */
  public void ahead(Set<String> names) {
    if (names.size() > 1) {
      for (String name : names) {
        Thread opener = new Thread(opening(name), "to " + name);
        opener.setDaemon(true);
        opener.start();
      }
    }
  }

  private FutureTask<HostLine> opening(String name) {
    return open.computeIfAbsent(name, told -> new FutureTask<>(() -> opened(entries.apply(told))));
  }

  private HostLine opened(HostEntry entry) {
    down(entry)
        .ifPresent(
            why -> {
              throw new UnreachableException("Cannot reach '" + entry.name() + "': " + why);
            });
    return lines().open(reach(entry));
  }

  /** Why a practice host cannot be reached that is not started; empty for any other machine. */
  public Optional<String> down(HostEntry entry) {
    return Optional.of(
            "it is a practice host and does not run. Start it: jolly host start " + entry.name())
        .filter(why -> PracticeHosts.of(entry).isPresent() && !practice.mayRun(entry));
  }

  /** The address that servers on a practice host bind; empty for any other machine. */
  Optional<String> inside(String name) {
    return PracticeHosts.of(entries.apply(name)).map(StandIn::inside);
  }

  /** The name or address by which the machine of that name is reached from here. */
  public String address(String name) {
    return line(name).address();
  }

  /** Ends what this run of the tool uses of its connections. */
  @Override
  public void close() {
    open.values().stream().filter(FutureTask::isDone).forEach(Machines::close);
  }

  private static void close(FutureTask<HostLine> line) {
    try {
      line.get().close();
    } catch (ExecutionException neverOpened) {
      return;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  /** Sockets that the machine of that name connects. */
  public Supplier<Socket> sockets(String name) {
    return line(name)::socket;
  }
}

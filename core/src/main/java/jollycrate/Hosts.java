package jollycrate;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Descriptions;
import jollycrate.app.HostEntry;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServersFile;
import jollycrate.host.HostException;
import jollycrate.host.HostKey;
import jollycrate.host.HostLine;
import jollycrate.host.HostLines;
import jollycrate.host.StandIn;
import jollycrate.host.Time;
import jollycrate.host.UnreachableException;
import jollycrate.site.Examination.Seen;
import jollycrate.site.Examination.Verdict;
import jollycrate.site.HostExamination;
import jollycrate.site.Machines;
import jollycrate.site.PracticeHosts;
import jollycrate.site.Sites;
import jollycrate.watch.Site;

/** What the commands do with other machines. */
public final class Hosts {
  private final Descriptions descriptions;
  private final Machines machines;
  private final HostLines lines;
  private final Sites sites;
  private final PracticeHosts practice;
  private final Path folder;

  Hosts(Means means) {
    this.descriptions = means.descriptions();
    this.machines = means.machines();
    this.lines = Machines.lines();
    this.sites = means.sites();
    this.practice = means.practice();
    this.folder = means.setting().folder();
  }

  /**
   * A described machine.
   *
   * @param ssh where it is, as servers.toml says
   * @param sudo whom one becomes there; empty: who logs in
   * @param told who logged in, and where; empty when it is not reached
   * @param problem why it is not reached; empty when it is
   * @param practice what stands in for it; empty where it is a real one
   */
  public record State(
      String name,
      String ssh,
      String sudo,
      String told,
      String problem,
      Optional<StandIn> practice) {}

  /** Every described machine, and whether it is reached now. */
  public List<State> states() {
    return descriptions.hosts().parallelStream().map(this::state).toList();
  }

  private State state(HostEntry entry) {
    Optional<String> down = machines.down(entry);
    if (down.isPresent()) {
      return state(entry, "", down.get());
    }
    try (HostLine line = lines.open(machines.reach(entry))) {
      return state(entry, line.told(), "");
    } catch (UnreachableException e) {
      return state(entry, "", e.getMessage());
    }
  }

  private static State state(HostEntry entry, String told, String problem) {
    return new State(
        entry.name(), entry.ssh(), entry.sudo().orElse(""), told, problem, PracticeHosts.of(entry));
  }

  /**
   * What a machine has of what servers need, and of those that are described for it.
   *
   * @throws UnreachableException when it cannot be reached
   */
  public List<Seen> examine(String name) {
    HostLine line = machines.line(name);
    List<Seen> seen = new ArrayList<>(HostExamination.of(line.host(), line.told(), Time.system()));
    descriptions.entries().stream()
        .filter(entry -> entry.host().equals(Optional.of(name)))
        .map(this::server)
        .forEach(seen::add);
    return seen;
  }

  /** Whether what is described for it is there. */
  private Seen server(ServerEntry entry) {
    String what = "server " + entry.name();
    try {
      Site site = sites.site(entry);
      String value = site.traits().label() + ", " + site.server().folder();
      return site.files().writable(site.server().folder())
          ? new Seen(what, Verdict.RIGHT, value + ", Java " + site.stockTaker().java(), "")
          : new Seen(what, Verdict.WRONG, value + ": it may not be written", "Name 'sudo' for it");
    } catch (NotDescribedException | HostException e) {
      return new Seen(what, Verdict.WRONG, e.getMessage(), "");
    }
  }

  /** Makes a practice host, describes it in {@code servers.toml} and starts it. */
  public StandIn make(String name) {
    Path file = descriptions.serversFile().orElseGet(() -> folder.resolve(ServersFile.NAME));
    List<HostEntry> described = Files.exists(file) ? ServersFile.hosts(file) : List.of();
    return practice.make(name, described, file);
  }

  /** Opens a port of a practice host to what comes from outside, or closes it. */
  public StandIn let(String name, int port, boolean in) {
    return practice.let(descriptions.host(name), port, in);
  }

  /** Starts a practice host; false when it runs already. */
  public boolean start(String name) {
    return practice.start(descriptions.host(name));
  }

  /** Stops a practice host on which no server runs; false when it does not run. */
  public boolean stop(String name) {
    HostEntry entry = descriptions.host(name);
    return practice.stop(entry, practice.mayRun(entry) ? busy(name) : List.of());
  }

  private List<String> busy(String name) {
    return descriptions.entries().stream()
        .filter(entry -> entry.host().equals(Optional.of(name)))
        .filter(entry -> !sites.site(entry).stockTaker().presence().isStopped())
        .map(entry -> "server " + entry.name() + " runs there")
        .toList();
  }

  /** What is missing here to reach other machines; empty when nothing is. */
  public Optional<String> missing() {
    return lines.missing();
  }

  /** The key that a machine shows now. */
  public HostKey key(String name) {
    return lines.key(machines.reach(descriptions.host(name)));
  }

  /** Trusts that key from now on. */
  public void trust(String name, HostKey key) {
    lines.trust(machines.reach(descriptions.host(name)), key);
  }
}

package jollycrate;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.app.Descriptions;
import jollycrate.app.Ports;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServersFile;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.ServerChanges;
import jollycrate.delivery.ServerService;
import jollycrate.host.Host;
import jollycrate.secret.Reference;
import jollycrate.server.ServerUser;
import jollycrate.server.Wish;
import jollycrate.site.Adoption;
import jollycrate.site.Examination;
import jollycrate.site.NewServer;
import jollycrate.site.Redescription;
import jollycrate.site.ServerAdoption;
import jollycrate.site.ServerApps;
import jollycrate.site.ServerRemoval;
import jollycrate.site.ServerState;
import jollycrate.site.ValuesInForce;
import jollycrate.watch.Site;

/** What the commands do with servers. */
public final class Servers {
  private final Means means;
  private final Descriptions descriptions;

  Servers(Means means) {
    this.means = means;
    this.descriptions = means.descriptions();
  }

  /** One server apart from its applications. */
  public ServerService named(String serverName) {
    return server(descriptions.entry(serverName));
  }

  private ServerService server(ServerEntry entry) {
    return new ServerService(site(entry), means.progress(), means.interrupts());
  }

  private Site site(ServerEntry entry) {
    return means.sites().site(entry);
  }

  /** Makes a server and describes it in {@code servers.toml}. */
  public ServerEntry make(NewServer wanted) {
    means.setting().mustHandleServers();
    return means.foundation().found(wanted, serversFile());
  }

  /** Describes a server that people have in {@code servers.toml}; it stays as it is. */
  public Adoption adopt(Adoption.Wanted wanted) {
    means.setting().mustHandleServers();
    Host host = means.machines().named(wanted.host());
    ServerAdoption adoption =
        new ServerAdoption(host, means.setting(), means.kinds(), means.instances());
    return host.sight().once(() -> adoption.adopt(wanted, serversFile()));
  }

  private Path serversFile() {
    return descriptions
        .serversFile()
        .orElseGet(() -> means.setting().folder().resolve(ServersFile.NAME));
  }

  /**
   * Removes a server on which nothing stands.
   *
   * @param meant whether it is done, or only told
   */
  public ServerRemoval remove(String name, boolean meant) {
    ServerEntry entry = descriptions.entry(name);
    Path file = descriptions.serversFile().orElseThrow();
    return means.machines().named(entry.host()).files().facts(entry.folder()).exists()
        ? ServerRemoval.of(site(entry), server(entry), file, meant)
        : ServerRemoval.ofEntry(entry, file, meant);
  }

  /**
   * The applications of servers.
   *
   * @param name of one; empty: of every described server
   */
  public List<ServerApps> apps(Optional<String> name) {
    return name.map(descriptions::entry).map(List::of).orElseGet(descriptions::entries).stream()
        .map(entry -> ServerApps.of(site(entry)))
        .toList();
  }

  /**
   * Closes the doors of a server that everybody knows, or says what would be done.
   *
   * @param movesPages whether its own administration pages go to the admin listener
   */
  public DeliveryOutcome harden(String name, boolean movesPages, boolean dryRun) {
    ServerEntry entry = descriptions.entry(name);
    return changes(entry, entry.ports())
        .change(new Wish.Hardened(movesPages), Optional.empty(), dryRun);
  }

  /**
   * Brings a server to what its description says, with other values in it; or says what would be
   * done.
   *
   * @param values by key, as people write them in servers.toml; an empty one takes the key out
   */
  public DeliveryOutcome change(String name, Map<String, String> values, boolean dryRun) {
    ServerEntry before = descriptions.entry(name);
    Path file = descriptions.serversFile().orElseThrow();
    Redescription after =
        Redescription.of(
            means.host(), means.secrets(), means.sites()::reached, file, before, values);
    Wish wish = new Wish.AsDescribed(before.ports(), after.keystore());
    ServerChanges changes = changes(after.entry(), before.ports());
    return before.host().isPresent() && after.file().isPresent()
        ? changes.change(wish, after.beside(means.host().files()), dryRun)
        : changes.change(wish, after.file(), dryRun);
  }

  /** Whom a server itself knows. */
  public List<ServerUser> users(String name) {
    Site site = site(descriptions.entry(name));
    return site.kind().users(site.files(), site.stockTaker().take(List.of()));
  }

  /** Changes one user whom a server itself knows, or says what would be done. */
  public DeliveryOutcome users(String name, Wish.UserChange change, boolean dryRun) {
    ServerEntry entry = descriptions.entry(name);
    return changes(entry, entry.ports()).change(new Wish.Users(change), Optional.empty(), dryRun);
  }

  /**
   * The password behind a reference, which starts from the folder where the tool works; empty when
   * the text is none.
   */
  public Optional<String> password(String text) {
    return Reference.of(text, means.setting().folder()).map(means.secrets()::resolve);
  }

  private ServerChanges changes(ServerEntry entry, Ports before) {
    return new ServerChanges(site(entry), before, means.progress(), means.interrupts());
  }

  /** Whether a server is as it is described, thing by thing. */
  public List<Examination.Seen> examine(String name) {
    ServerEntry entry = descriptions.entry(name);
    return Examination.of(site(entry), server(entry).unfinished());
  }

  /** The values that count on a server, of the application that is described here and its own. */
  public ValuesInForce values(String serverName) {
    ServerEntry entry = descriptions.entry(serverName);
    Path servers = descriptions.serversFile().orElseThrow();
    ValuesInForce values =
        ValuesInForce.of(entry, ServersFile.written(servers, serverName), means.secrets());
    return descriptions.isDescribed()
        ? values.with(
            descriptions.application(entry),
            descriptions.written(serverName),
            entry.runsPrograms(),
            means.secrets())
        : values;
  }

  /** Every described server as it stands now. */
  public List<ServerState> states() {
    List<ServerEntry> entries = descriptions.entries();
    means
        .machines()
        .ahead(
            entries.stream().flatMap(entry -> entry.host().stream()).collect(Collectors.toSet()));
    return entries.stream().map(entry -> ServerState.of(entry, this::site, this::server)).toList();
  }
}

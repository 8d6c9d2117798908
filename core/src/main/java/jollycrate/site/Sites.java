package jollycrate.site;

import java.net.Socket;
import java.nio.file.Path;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.function.Supplier;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Ports;
import jollycrate.app.ServerEntry;
import jollycrate.app.Setting;
import jollycrate.check.Requester;
import jollycrate.host.Host;
import jollycrate.host.Time;
import jollycrate.secret.Secrets;
import jollycrate.server.Server;
import jollycrate.watch.Site;

/** Servers as they are described, with what is needed to handle them. */
public final class Sites {
  private final Machines machines;
  private final Setting setting;
  private final Kinds kinds;
  private final Instances instances;
  private final Secrets secrets;
  private final BiFunction<Supplier<Socket>, Optional<Path>, Requester> requesters;

  /** By the entry itself: to hash a record costs more than to read its file once more. */
  private final Map<ServerEntry, Site> made = new IdentityHashMap<>();

  /**
   * On machines.
   *
   * @param requesters ask servers over HTTP, by such sockets, trusting such certificates besides
   *     the usual ones
   */
  public Sites(
      Machines machines,
      Setting setting,
      Kinds kinds,
      Instances instances,
      Secrets secrets,
      BiFunction<Supplier<Socket>, Optional<Path>, Requester> requesters) {
    this.machines = machines;
    this.setting = setting;
    this.kinds = kinds;
    this.instances = instances;
    this.secrets = secrets;
    this.requesters = requesters;
  }

  /**
   * A described server.
   *
   * @throws NotDescribedException when it is not as it is described
   * @throws jollycrate.host.UnreachableException when its machine cannot be reached
   */
  public Site site(ServerEntry entry) {
    return made.computeIfAbsent(entry, this::make);
  }

  private Site make(ServerEntry entry) {
    setting.mustHandleServers();
    Host host = machines.named(entry.host());
    return host.sight().once(() -> make(entry, host));
  }

  private Site make(ServerEntry entry, Host host) {
    host.sight()
        .ahead(
            kinds
                .recognising(installation(entry).orElse(entry.folder()))
                .real(List.of(entry.folder()))
                .place(entry.folder())
                .real(Instances.javas(entry.jvm(), host)));
    Path folder = host.files().real(entry.folder());
    Path installation = installation(entry).orElse(folder);
    Server server = instances.server(host, entry, installation, folder).listening(reached(entry));
    if (!host.files().facts(server.folder()).isFolder()) {
      throw new NotDescribedException(absent(entry, server.folder()));
    }
    Supplier<Requester> here = () -> requesters.apply(Socket::new, entry.ports().trust());
    Kinds.Recognised recognised = kinds.of(entry, host.files(), installation);
    return new Site(
        host,
        recognised.kind(),
        recognised.traits(),
        server,
        Time.system(),
        entry.host().map(name -> through(name, entry)).orElse(here),
        entry.host().map(name -> outside(name, entry.ports().trust())).orElse(here),
        secrets,
        setting.by(),
        () -> instances.bring(server, host));
  }

  /** Where people reach a server, whose machine may have to be asked for that. */
  public Ports reached(ServerEntry entry) {
    return entry
        .host()
        .map(name -> entry.ports().reachedAt(machines.address(name)))
        .orElse(entry.ports());
  }

  /** Where a server is installed; empty for one that is all in its folder. */
  private Optional<Path> installation(ServerEntry entry) {
    return entry.kind().isPresent()
        ? Optional.empty()
        : entry
            .installation()
            .or(() -> Optional.of(PracticeInstallation.in(setting, entry.javax())));
  }

  private static String absent(ServerEntry entry, Path folder) {
    String fix = "'. Fix 'folder' in servers.toml";
    String make =
        ", or remove the entry and make the server with 'jolly server new "
            + entry.name()
            + entry.kind().map(kind -> " --kind " + kind).orElse("")
            + "'";
    return "Cannot find server '"
        + entry.name()
        + "': there is no folder '"
        + folder
        + entry.host().map(name -> "' on '" + name + fix).orElse(fix + make);
  }

  /** Requests go there as anybody's would, to where the machine is reached. */
  private Supplier<Requester> outside(String host, Optional<Path> trust) {
    String address = machines.address(host);
    return () -> {
      Requester requester = requesters.apply(Socket::new, trust);
      requester.leads(host, address);
      return requester;
    };
  }

  /** Requests come out of the machine itself, which is called there by its address. */
  private Supplier<Requester> through(String host, ServerEntry entry) {
    Supplier<Socket> sockets = machines.sockets(host);
    return () -> {
      Requester requester = requesters.apply(sockets, entry.ports().trust());
      requester.leads(host, entry.ports().boundName());
      return requester;
    };
  }
}

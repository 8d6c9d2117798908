package jollycrate.site;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.app.Jvm;
import jollycrate.app.Keeping;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Ports;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServerVariables;
import jollycrate.app.ServersEdit;
import jollycrate.app.ServersFile;
import jollycrate.app.Setting;
import jollycrate.app.Steering;
import jollycrate.app.Unit;
import jollycrate.control.StartedOtherwise;
import jollycrate.foresee.Finding;
import jollycrate.host.Host;
import jollycrate.host.Program;
import jollycrate.host.Ran;
import jollycrate.server.Occupant;
import jollycrate.server.Running;
import jollycrate.server.SelfDescription;
import jollycrate.server.SelfDescription.Told;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.stock.StockTaker;

/** Takes servers over that people have: reads what is there and describes it; changes nothing. */
public final class ServerAdoption {
  /** How {@code systemctl status} begins: a mark, the unit, a dash and what it is for. */
  private static final Pattern UNIT_TOLD = Pattern.compile("\\S+ (\\S+)\\.service\\b");

  private final Host host;
  private final Kinds kinds;
  private final AdoptedPlaces places;
  private final Instances instances;

  public ServerAdoption(Host host, Setting setting, Kinds kinds, Instances instances) {
    this.host = host;
    this.kinds = kinds;
    this.places = new AdoptedPlaces(host, setting, kinds);
    this.instances = instances;
  }

  /** Reads a server and adds its entry to {@code servers.toml}. */
  public Adoption adopt(Adoption.Wanted wanted, Path serversFile) {
    Path folder = places.folder(wanted);
    mustBeNew(wanted, folder, serversFile);
    Optional<Program> process = kinds.running(host, folder);
    Path installation = places.installation(wanted, folder, process);
    Kinds.Recognised recognised = places.recognised(wanted.name(), folder, installation);
    Optional<Path> java = wanted.java().or(() -> process.flatMap(this::javaOf));
    Jvm jvm = new Jvm(java, Optional.empty(), Jvm.MEMORY, List.of());
    ServerEntry provisional =
        entry(wanted, folder, installation, ServersFile.LOOPBACK, 0, jvm, Steering.OURS);
    Server server = instances.server(host, provisional, installation, host.files().real(folder));
    Stock stock = new StockTaker(host, recognised.kind(), server).take(List.of());
    SelfDescription self =
        recognised
            .kind()
            .describe(host.files(), stock)
            .orElseThrow(() -> unsuited(wanted.name(), recognised, stock));
    int http = wanted.http().orElseGet(() -> httpOf(wanted.name(), self));
    wanted.unit().ifPresent(unit -> mustBeLoaded(wanted.name(), unit));
    Optional<Unit> unit = wanted.unit().or(() -> process.flatMap(this::unitOf));
    Optional<Path> output = stock.process().found().flatMap(Running::printsTo);
    Steering steering =
        unit.map(
                its ->
                    new Steering(Optional.empty(), List.of(), Optional.empty(), Optional.of(its)))
            .orElseGet(() -> steering(server, self, output));
    String address = self.address().isEmpty() ? ServersFile.LOOPBACK : self.address();
    Jvm as =
        new Jvm(
            java, Optional.empty(), self.way().memory().orElse(Jvm.MEMORY), self.way().options());
    ServerEntry entry = entry(wanted, folder, installation, address, http, as, steering);
    Adoption adoption = adoption(entry, recognised, stock, self);
    write(serversFile, entry);
    return adoption;
  }

  private static NotDescribedException unsuited(
      String name, Kinds.Recognised recognised, Stock stock) {
    return recognised.kind().contradictions(stock).stream()
        .findFirst()
        .map(why -> AdoptedPlaces.cannot(name, why.message(), why.fix()))
        .orElseGet(
            () ->
                AdoptedPlaces.cannot(
                    name,
                    "a " + recognised.traits().label() + " that you have cannot be adopted",
                    "Make one of its own with 'jolly server new'"));
  }

  private Adoption adoption(
      ServerEntry entry, Kinds.Recognised recognised, Stock stock, SelfDescription self) {
    List<Told> told = new ArrayList<>(self.told());
    entry.jvm().home().ifPresent(home -> told.add(new Told("Java", home.toString(), "")));
    told.add(new Told("process", fare(stock), ""));
    entry.steering().log().ifPresent(log -> told.add(new Told("prints to", log, "")));
    entry
        .steering()
        .unit()
        .ifPresent(unit -> told.add(new Told("runs by", "unit " + unit.name(), "")));
    if (!entry.steering().start().isEmpty()) {
      told.add(new Told("started by", String.join(" ", entry.steering().start()), ""));
    }
    Server described =
        instances.server(host, entry, stock.server().installation(), stock.server().folder());
    Stock now = new StockTaker(host, recognised.kind(), described).take(List.of());
    List<Finding> findings = new ArrayList<>(findings(self, now, entry));
    if (entry.steering().unit().isEmpty()) {
      now.process()
          .found()
          .filter(running -> !running.ours())
          .map(
              running ->
                  new StartedOtherwise(
                      host, described, recognised.kind().processes().launch(now), running))
          .ifPresent(
              otherwise -> otherwise.findings().forEach(found -> findings.add(found.asWarn())));
    }
    return new Adoption(
        entry,
        recognised.traits().label(),
        List.copyOf(told),
        recognised.kind().occupants(now).stream().filter(Occupant::served).toList(),
        List.copyOf(findings));
  }

  private static List<Finding> findings(SelfDescription self, Stock stock, ServerEntry entry) {
    List<Finding> findings = new ArrayList<>();
    for (SelfDescription.Doubt doubt : self.doubts()) {
      findings.add(
          doubt.fix().isEmpty()
              ? Finding.note(doubt.subject(), doubt.message())
              : Finding.warn(doubt.subject(), doubt.message(), doubt.seen(), doubt.fix()));
    }
    Optional<Running> running = stock.process().found();
    Optional<String> unread = running.flatMap(found -> found.output().unread());
    boolean journal = entry.steering().unit().isPresent();
    if (running.isPresent() && running.get().printsTo().isEmpty() && !journal) {
      findings.add(
          Finding.warn(
              entry.name(),
              unread.isPresent()
                  ? "where its process prints cannot be told: " + unread.get()
                  : "its process prints to no file, so what becomes of a delivery could not be"
                      + " read",
              "process " + running.get().identity().pid(),
              unread.isPresent()
                  ? "Adopt it as the user who started it"
                  : "Stop it before the first delivery; jolly starts it then"));
    }
    stock
        .stranger(entry.ports().http())
        .ifPresent(
            other ->
                findings.add(
                    Finding.warn(
                        "port " + other.port(),
                        "another program than this server listens there",
                        other.who(),
                        "End that program, or give the server another port")));
    return List.copyOf(findings);
  }

  private static String fare(Stock stock) {
    return stock
        .process()
        .found()
        .map(running -> "runs, pid " + running.identity().pid())
        .orElseGet(() -> stock.process().unread().map(why -> "unknown: " + why).orElse("stopped"));
  }

  /** A process tells best where it prints; a stopped server will be started by its own command. */
  private static Steering steering(Server server, SelfDescription self, Optional<Path> output) {
    String log = output.map(server::shown).orElse(self.way().log());
    return new Steering(Optional.of(log), self.way().start(), Optional.empty(), Optional.empty());
  }

  private void mustBeLoaded(String name, Unit unit) {
    Ran ran = run(unit.command("show", "--property=LoadState", "--value"));
    if (!ran.output().strip().equals("loaded")) {
      String said = ran.output().strip() + ran.errors().strip();
      throw AdoptedPlaces.cannot(
          name,
          "the service manager knows no unit '" + unit.name() + "' (" + said + ")",
          "'systemctl list-units --type=service' lists them");
    }
  }

  /** The unit of a process, as its service manager tells; empty for one in somebody's session. */
  private Optional<Unit> unitOf(Program process) {
    String pid = "" + process.identity().pid();
    Ran ran = run(List.of("systemctl", "status", "--no-pager", "--lines=0", pid));
    Matcher told = UNIT_TOLD.matcher(ran.output());
    return Optional.of(told)
        .filter(found -> ran.exit() == 0 && found.lookingAt())
        .map(found -> found.group(1))
        .filter(unit -> !unit.startsWith("user@"))
        .map(unit -> new Unit(unit, false));
  }

  private Ran run(List<String> command) {
    return host.processes()
        .run(command, Path.of("/"), host.environment(), "", Duration.ofSeconds(20));
  }

  private static int httpOf(String name, SelfDescription self) {
    return self.http()
        .orElseThrow(
            () ->
                AdoptedPlaces.cannot(
                    name,
                    "its configuration names no port for HTTP that is known here",
                    "Say which it is: --http PORT"));
  }

  /** The home of the Java that a process runs on, by the program that it is. */
  private Optional<Path> javaOf(Program process) {
    Path told = Path.of(process.arguments().get(0));
    return Optional.of(told)
        .filter(Path::isAbsolute)
        .map(host.files()::real)
        .filter(program -> program.endsWith(Path.of("bin", "java")))
        .map(program -> program.getParent().getParent());
  }

  private void mustBeNew(Adoption.Wanted wanted, Path folder, Path serversFile) {
    String name = wanted.name();
    if (!name.matches(ServersFile.NAME_FORM)) {
      throw AdoptedPlaces.cannot(name, "it is no name", "Use letters, digits, _ and - only");
    }
    if (!host.files().facts(folder).isFolder()) {
      throw AdoptedPlaces.cannot(name, "there is no folder '" + folder + "'", "");
    }
    List<ServerEntry> others =
        Files.exists(serversFile) ? ServersFile.read(serversFile) : List.of();
    for (ServerEntry other : others) {
      if (other.name().equals(name)) {
        throw AdoptedPlaces.cannot(
            name, "servers.toml describes it already", "Choose another name");
      }
      if (other.host().equals(wanted.host())
          && host.files().real(other.folder()).equals(host.files().real(folder))) {
        throw AdoptedPlaces.cannot(name, "'" + folder + "' is '" + other.name() + "' already", "");
      }
    }
  }

  private static ServerEntry entry(
      Adoption.Wanted wanted,
      Path folder,
      Path installation,
      String address,
      int http,
      Jvm jvm,
      Steering how) {
    Ports ports = new Ports(address, http, Optional.empty(), Optional.empty(), Optional.empty());
    return new ServerEntry(
        wanted.name(),
        wanted.host(),
        folder,
        Optional.of(installation),
        false,
        wanted.host().map(ports::on).orElse(ports),
        jvm,
        ServerVariables.NONE,
        Optional.empty(),
        Keeping.USUAL,
        Optional.empty(),
        how,
        Optional.empty());
  }

  private static void write(Path serversFile, ServerEntry entry) {
    try {
      ServersEdit.add(serversFile, entry);
    } catch (IOException e) {
      throw AdoptedPlaces.cannot(
          entry.name(), "'" + serversFile + "' cannot be written: " + e, "Fix its rights");
    }
  }
}

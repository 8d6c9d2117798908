package jollycrate.watch;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.check.Answer;
import jollycrate.check.KeptAnswers;
import jollycrate.check.Requester;
import jollycrate.host.Access;
import jollycrate.host.Glance;
import jollycrate.host.Host;
import jollycrate.host.HostFiles;
import jollycrate.host.Time;
import jollycrate.journal.EarlierReleases;
import jollycrate.secret.Secrets;
import jollycrate.server.Cause;
import jollycrate.server.LogPlace;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.ServerKind;
import jollycrate.server.Traits;
import jollycrate.stock.ProcessRecord;
import jollycrate.stock.Records;
import jollycrate.stock.StockTaker;

/**
 * A server, where it runs and how it is handled.
 *
 * @param requesters ask it over HTTP on its own machine; whoever takes one closes it
 * @param outside asks it as people do, from where the tool works
 * @param secrets resolves what descriptions refer to, and hides it in what is told
 * @param by who makes changes, as records name them
 * @param supplies brings to its machine what it needs and is not there
 */
public record Site(
    Host host,
    ServerKind kind,
    Traits traits,
    Server server,
    Time time,
    Supplier<Requester> requesters,
    Supplier<Requester> outside,
    Secrets secrets,
    String by,
    Runnable supplies) {

  /** The same, whose answers are kept. */
  public Site keeping(KeptAnswers answers) {
    return new Site(
        host,
        kind,
        traits,
        server,
        time,
        () -> answers.of(requesters.get()),
        () -> answers.of(outside.get()),
        secrets,
        by,
        supplies);
  }

  public HostFiles files() {
    return host.files();
  }

  /** What a {@code GET} brings, within a limit. */
  public Answer ask(URI url, Duration limit) {
    try (Requester requester = requesters.get()) {
      return requester.send(Requester.Request.get(url), limit);
    }
  }

  /** Our own files in the server's folder. */
  public Records records() {
    return new Records(server.records());
  }

  /** A placement where it answers as the server is described now. */
  public Placement addressed(Placement recorded) {
    return traits.hosts()
        ? recorded.on(server.ports())
        : server.front().map(front -> recorded.behind(front.address())).orElse(recorded);
  }

  /** The releases of it that can be delivered again. */
  public EarlierReleases releases() {
    return new EarlierReleases(host.files(), records().releases());
  }

  /** Takes stock of this server. */
  public StockTaker stockTaker() {
    return new StockTaker(host, kind, server, secrets);
  }

  /** What people are told of it. */
  public Aim.Place place(String address) {
    return new Aim.Place(
        server.name(),
        traits.label(),
        stockTaker().java(),
        there(server.folder()),
        traits.hosts() ? there(log()) : "",
        address);
  }

  /** A path, with its machine when that is another one. */
  private String there(Path path) {
    return (host.here() ? "" : host.name() + ":") + path;
  }

  /** The file that it prints to, or what the journal of its unit is called. */
  public Path log() {
    return server.steering().unit().map(UnitJournal::name).map(Path::of).orElseGet(this::logFile);
  }

  private Path logFile() {
    return server.log(traits.folders().log());
  }

  /** Lets time go by before the next look, which the log's growing brings about. */
  void pause(Duration little, List<Path> alsoWatched) {
    List<Path> watched = new ArrayList<>(alsoWatched);
    watched.add(logFile());
    host.sight().pause(time, little, watched);
  }

  /** Where that ends now. */
  public long logEnd() {
    return journal().map(UnitJournal::end).orElseGet(() -> files().facts(logFile()).size());
  }

  /** The journal that it prints to; empty when it prints to a file. */
  Optional<UnitJournal> journal() {
    return server.steering().unit().map(unit -> new UnitJournal(this, unit));
  }

  /** Where further logs end now in which causes may stand. */
  public List<LogPlace> besides() {
    List<Path> logs =
        files().list(logFile().getParent()).stream()
            .filter(
                file -> !file.equals(logFile()) && kind.logs().tells(file.getFileName().toString()))
            .toList();
    return files().facts(logs).stream()
        .map(found -> new LogPlace(found.path(), found.size()))
        .toList();
  }

  /** What {@link #logEnd} and {@link #besides} are going to read. */
  public Glance logEnds() {
    return new Glance().facts(List.of(logFile())).lists(List.of(logFile().getParent()));
  }

  /** The same logs, and those begun since, from where they ended then. */
  public List<LogPlace> besidesSince(List<LogPlace> then) {
    return besides().stream()
        .map(
            now ->
                then.stream()
                    .filter(old -> old.file().equals(now.file()))
                    .findFirst()
                    .orElse(new LogPlace(now.file(), 0)))
        .toList();
  }

  /** Why an application does not run although its server does, as far as the log tells. */
  public Optional<Cause> down(Placement placement) {
    return host.sight().once(() -> downSeen(placement));
  }

  private Optional<Cause> downSeen(Placement placement) {
    long begin = traits.hosts() ? stockTaker().record().map(ProcessRecord::log).orElse(0L) : 0;
    host.sight().ahead(LogSlice.glance(new LogPlace(log(), begin)));
    LogSlice slice = LogSlice.since(this, new LogPlace(log(), begin));
    return kind.logs().down(server, placement, slice.text()).map(c -> slice.located(this, c));
  }

  /** Brings there what it needs before it is started. */
  public void supply(Progress progress) {
    server
        .runtime()
        .supply()
        .ifPresent(
            supply -> {
              progress.waitingFor(
                  supply.archive().getFileName() + " to be unpacked on " + host.name());
              supplies.run();
            });
  }

  /** Rights of the records: as readable as the server's folder itself. */
  public Access recordAccess() {
    Access folder = files().facts(server.folder()).access();
    String mode = folder.mode();
    String readable =
        "rw-" + (mode.charAt(3) == 'r' ? "r--" : "---") + (mode.charAt(6) == 'r' ? "r--" : "---");
    return folder.with(readable);
  }

  public void makeRecordsFolder() {
    if (!files().facts(server.records()).exists()) {
      files().makeFolder(server.records(), files().facts(server.folder()).access());
    }
  }

  /** Deletes what a killed process left among our records; only while no delivery is open. */
  public void sweepRecords() {
    Records records = records();
    for (Path path : files().list(records.folder())) {
      String name = path.getFileName().toString();
      boolean half = name.endsWith(".part");
      boolean left = path.equals(records.standingNext()) || path.equals(records.backups());
      if (half || left) {
        files().deleteTree(path);
      }
    }
  }

  /** Deletes a folder unless something stands in it. */
  public void deleteIfEmpty(Path folder) {
    if (files().facts(folder).isFolder() && files().list(folder).isEmpty()) {
      files().delete(folder);
    }
  }
}

package jollycrate.control;

import java.security.SecureRandom;
import java.time.Duration;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Unit;
import jollycrate.host.Content;
import jollycrate.host.HostException;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.host.Ran;
import jollycrate.json.Json;
import jollycrate.server.Cause;
import jollycrate.server.Presence;
import jollycrate.server.Running;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.step.Step;
import jollycrate.stock.ProcessRecord;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;

/** Starts and stops the process of a server so that it is never lost and never doubled. */
public final class ServerProcess {
  private static final Duration POLITE = Duration.ofSeconds(20);
  private static final Duration PRINTS = Duration.ofSeconds(2);
  private static final Duration FIRM = Duration.ofSeconds(10);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(25);
  private static final int TOKEN_BYTES = 12;
  private static final SecureRandom RANDOM = new SecureRandom();

  private final Site site;

  public ServerProcess(Site site) {
    this.site = site;
  }

  public Presence presence() {
    return site.stockTaker().presence();
  }

  /** Programs that go on although the process that looked after them is gone. */
  public List<Identity> leftBehind() {
    if (!presence().isStopped()) {
      return List.of();
    }
    Stock stock = site.stockTaker().take(List.of());
    return site.kind().processes().noted(site.server(), stock.texts()).stream()
        .filter(site.host().processes()::mayRun)
        .toList();
  }

  /** What keeps the server from being started as it is described. */
  static Optional<Cause> cannotStart(Server server) {
    List<String> unresolved = server.runtime().unresolved();
    return unresolved.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new Cause(
                "variables of server '" + server.name() + "' have no value",
                "[server." + server.name() + ".variables] in servers.toml",
                unresolved,
                "Give them their values, then try again",
                -1));
  }

  /** Starts it as it is described. */
  public void start(Stock stock) {
    Launch launch = site.kind().processes().launch(stock);
    start(launch, launch.fingerprint());
  }

  /**
   * Starts it as it ran before it was stopped, whatever the description says by now; a command of
   * its own starts it as ever.
   */
  public void startAgain(Stock stock, Step.StopServer stopped) {
    if (site.server().steering().hasItsOwn()) {
      start(stock);
      return;
    }
    start(site.kind().processes().launch(stock).as(stopped.command()), stopped.fingerprint());
  }

  /** The token is on record before the start, so that a process is found even after a crash. */
  private void start(Launch launch, String fingerprint) {
    cannotStart(site.server())
        .ifPresent(
            cause -> {
              throw new StepFailed(cause);
            });
    byte[] random = new byte[TOKEN_BYTES];
    RANDOM.nextBytes(random);
    String token = HexFormat.of().formatHex(random);
    long log = site.logEnd();
    record(new ProcessRecord(token, fingerprint, launch.command(), null, log));
    List<String> own = site.server().steering().starting();
    Identity identity =
        own.isEmpty()
            ? site.host().processes().start(launch, token, site.records().processNote())
            : new OwnStart(site, own).run(launch, token);
    record(new ProcessRecord(token, fingerprint, launch.command(), identity, log));
  }

  private void record(ProcessRecord record) {
    site.files().put(site.records().process(), Content.of(Json.line(record)), site.recordAccess());
  }

  /**
   * Stops it: politely; when it does not obey, it prints what its threads do into the log, and is
   * ended. So is what it left behind if it was killed.
   */
  public void stop() {
    if (site.server().steering().hasItsOwn()) {
      site.time()
          .until(() -> presence().unread().isEmpty(), OwnStart.ENDS_WITHIN, LOOK_AGAIN, () -> {});
    }
    Presence presence = presence();
    presence
        .unread()
        .ifPresent(
            why -> {
              throw new HostException(
                  "Cannot stop '" + site.server().name() + "': it cannot be told " + why);
            });
    if (!presence.isStopped()) {
      site.server().steering().unit().ifPresent(this::stop);
    }
    Stock stock = site.stockTaker().take(List.of());
    List<Identity> left = site.kind().processes().noted(site.server(), stock.texts());
    presence
        .found()
        .map(Running::identity)
        .ifPresent(process -> stop(process, site.kind().processes().endsWithin(stock)));
    left.forEach(process -> stop(process, POLITE));
  }

  /** Its manager would start it again if it were only ended. */
  private void stop(Unit unit) {
    Ran ran =
        site.host()
            .processes()
            .run(
                unit.command("stop"),
                site.server().folder(),
                site.host().environment(),
                "",
                OwnStart.ENDS_WITHIN);
    if (ran.exit() != 0) {
      throw new HostException(
          "Cannot stop '"
              + site.server().name()
              + "': "
              + String.join(" ", unit.command("stop"))
              + " ended with "
              + ran.exit()
              + ": "
              + ran.errors().strip());
    }
  }

  private void stop(Identity process, Duration polite) {
    HostProcesses processes = site.host().processes();
    if (!processes.mayRun(process)) {
      return;
    }
    processes.signal(process, HostProcesses.Signal.TERM);
    if (!endsWithin(process, polite)) {
      processes.signal(process, HostProcesses.Signal.QUIT);
      endsWithin(process, PRINTS);
      processes.signal(process, HostProcesses.Signal.KILL);
      if (!endsWithin(process, FIRM)) {
        throw new HostException(
            "Cannot stop '"
                + site.server().name()
                + "': process "
                + process.pid()
                + " does not end");
      }
    }
  }

  private boolean endsWithin(Identity process, Duration limit) {
    return site.time()
        .until(() -> !site.host().processes().mayRun(process), limit, LOOK_AGAIN, () -> {});
  }
}

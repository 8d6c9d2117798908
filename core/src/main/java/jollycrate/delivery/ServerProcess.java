package jollycrate.delivery;

import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.Optional;
import jollycrate.host.Content;
import jollycrate.host.HostException;
import jollycrate.host.HostProcesses;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.server.Json;
import jollycrate.server.ProcessRecord;
import jollycrate.server.Running;
import jollycrate.server.Stock;
import jollycrate.step.Step;

/** Starts and stops the process of a server so that it is never lost and never doubled. */
final class ServerProcess {
  private static final Duration POLITE = Duration.ofSeconds(30);
  private static final Duration FIRM = Duration.ofSeconds(10);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(25);
  private static final int TOKEN_BYTES = 12;
  private static final SecureRandom RANDOM = new SecureRandom();

  private final Site site;

  ServerProcess(Site site) {
    this.site = site;
  }

  Optional<Running> running() {
    return site.stockTaker().running();
  }

  /** Starts it as it is described. */
  void start(Stock stock) {
    Launch launch = site.kind().launch(stock);
    start(launch, launch.fingerprint());
  }

  /** Starts it as it ran before it was stopped, whatever the description says by now. */
  void startAgain(Stock stock, Step.StopServer stopped) {
    start(site.kind().launch(stock).as(stopped.command()), stopped.fingerprint());
  }

  /** The token is on record before the start, so that a process is found even after a crash. */
  private void start(Launch launch, String fingerprint) {
    byte[] random = new byte[TOKEN_BYTES];
    RANDOM.nextBytes(random);
    String token = HexFormat.of().formatHex(random);
    record(new ProcessRecord(token, fingerprint, launch.command(), null));
    Identity identity = site.host().processes().start(launch, token, site.records().processNote());
    record(new ProcessRecord(token, fingerprint, launch.command(), identity));
  }

  private void record(ProcessRecord record) {
    site.files().put(site.records().process(), Content.of(Json.line(record)), site.recordAccess());
  }

  void stop() {
    running().map(Running::identity).ifPresent(this::stop);
  }

  private void stop(Identity process) {
    HostProcesses processes = site.host().processes();
    processes.signal(process, HostProcesses.Signal.TERM);
    if (!endsWithin(process, POLITE)) {
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
    Instant until = site.time().now().plus(limit);
    while (site.host().processes().alive(process)) {
      if (site.time().now().isAfter(until)) {
        return false;
      }
      site.time().pause(LOOK_AGAIN);
    }
    return true;
  }
}

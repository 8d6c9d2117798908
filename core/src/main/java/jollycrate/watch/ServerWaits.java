package jollycrate.watch;

import java.io.IOException;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import jollycrate.check.Certificates;
import jollycrate.check.Requester;
import jollycrate.host.Listening;
import jollycrate.server.Cause;
import jollycrate.server.LogPlace;
import jollycrate.server.Presence;

/** Watches for facts about a server apart from its applications, each with a deadline. */
public final class ServerWaits {
  private static final Duration SHOWN_WITHIN = Duration.ofSeconds(10);
  private static final Duration ASKED_WITHIN = Duration.ofSeconds(2);
  private static final Duration READS_WITHIN = Duration.ofSeconds(25);

  private final Site site;
  private final Progress progress;
  private final Interrupts interrupts;
  private final Waits waits;

  public ServerWaits(Site site, Progress progress, Interrupts interrupts) {
    this.site = site;
    this.progress = progress;
    this.interrupts = interrupts;
    this.waits = new Waits(site, progress, interrupts);
  }

  /**
   * Waits until the server's process listens on all those ports and answers at the first one: a
   * port may be open long before anything behind it is up.
   *
   * @param ports the first of which speaks HTTP
   * @return the cause when it does not
   */
  public Optional<Cause> untilListening(List<Integer> ports, Waits.From from) {
    Instant until = site.time().now().plus(Waits.SERVER_STARTS_WITHIN);
    Set<Integer> missing = new TreeSet<>(ports);
    while (true) {
      interrupts.obey();
      Presence presence =
          site.host()
              .sight()
              .once(
                  () -> {
                    Presence seen = site.stockTaker().presence();
                    missing.removeAll(openedBy(seen));
                    return seen;
                  });
      if (missing.isEmpty() && (ports.isEmpty() || answers(ports.get(0)))) {
        return Optional.empty();
      }
      boolean late = site.time().now().isAfter(until);
      if (late || presence.isStopped()) {
        return Optional.of(notListening(missing, from, late));
      }
      progress.waitingFor(
          missing.isEmpty() ? "an answer at port " + ports.get(0) : named(missing) + " to open");
      site.pause(Waits.LOOK_AGAIN, List.of());
    }
  }

  private boolean answers(int port) {
    return site.host()
        .processes()
        .listening(port, site.server().ports().address())
        .orElse(Optional.empty())
        .map(listening -> URI.create("http://" + hostName(listening) + ":" + port + "/"))
        .filter(url -> site.ask(url, ASKED_WITHIN).came())
        .isPresent();
  }

  private String hostName(Listening listening) {
    return site.host().here() ? listening.hostName() : site.server().ports().hostName();
  }

  private Set<Integer> openedBy(Presence presence) {
    return presence
        .found()
        .map(running -> site.host().processes().ports(List.of(running.identity())))
        .map(ports -> ports.orElse(Set.of()))
        .orElse(Set.of());
  }

  private static String named(Set<Integer> ports) {
    String numbers = ports.stream().map(String::valueOf).collect(Collectors.joining(", "));
    return (ports.size() == 1 ? "port " : "ports ") + numbers;
  }

  private Cause notListening(Set<Integer> missing, Waits.From from, boolean isLate) {
    LogSlice log = LogSlice.since(site, new LogPlace(site.log(), from.mark()));
    String within = " within " + Waits.SERVER_STARTS_WITHIN.toSeconds() + " s";
    String late = missing.isEmpty() ? "it did not answer" : named(missing) + " did not open";
    String what = isLate ? late + within : "its process ended while starting";
    return site.kind()
        .logs()
        .explain(List.of(), log.text())
        .map(found -> log.located(site, found).with(waits.othersOnItsPorts()))
        .orElse(Cause.of(what, "Read " + site.log()));
  }

  /** Why a server does not show the certificate that it is to show; empty when it does. */
  public Optional<Cause> otherCertificate(URI url, String expected) {
    String where = url.getHost() + ":" + url.getPort();
    try (Requester requester = site.requesters().get()) {
      String shown = Certificates.digest(requester.certificate(url, SHOWN_WITHIN));
      return shown.equals(expected)
          ? Optional.empty()
          : Optional.of(
              Cause.of(
                  where + " shows certificate " + shown + ", and not " + expected,
                  "Take 'certificate' out of servers.toml if that one is right"));
    } catch (IOException e) {
      return Optional.of(
          Cause.of(where + " shows no certificate: " + e.getMessage(), "Read " + site.log()));
    }
  }

  /** Waits until the running server says that it has read a file of its own anew. */
  public Optional<Cause> untilRead(Path file, Waits.From from) {
    Instant until = site.time().now().plus(READS_WITHIN);
    String shown = site.server().shown(file);
    while (!site.kind()
        .logs()
        .tellsOfReading(file, LogSlice.since(site, new LogPlace(site.log(), from.mark())).text())) {
      interrupts.obey();
      if (site.time().now().isAfter(until)) {
        return Optional.of(
            Cause.of(
                "the server did not say within "
                    + READS_WITHIN.toSeconds()
                    + " s that it read "
                    + shown
                    + " anew",
                "Do it while the server is stopped: it reads the file when it starts"));
      }
      progress.waitingFor("the server to read " + shown);
      site.pause(Waits.LOOK_AGAIN, List.of());
    }
    return Optional.empty();
  }
}

package jollycrate.site;

import java.io.IOException;
import java.net.URI;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import jollycrate.app.Https;
import jollycrate.check.Answer;
import jollycrate.check.Certificates;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.check.People;
import jollycrate.check.Requester;
import jollycrate.front.WayBlame;
import jollycrate.host.Facts;
import jollycrate.server.Placement;
import jollycrate.server.Presence;
import jollycrate.server.Running;
import jollycrate.server.SelfDescription;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.watch.Site;

/** Looks whether a server is as it is described, thing by thing; changes nothing. */
public final class Examination {
  private static final long LEAST_FREE_BYTES = 200_000_000;
  private static final long LEAST_DAYS = 21;

  /** The first page of a server may be compiled when it is asked for, on a busy machine. */
  private static final Duration ANSWERS_WITHIN = Duration.ofSeconds(30);

  private final Site site;
  private final Server server;
  private final List<Seen> seen = new ArrayList<>();

  /** How a thing stands. */
  public enum Verdict {
    RIGHT,
    /** It works, and somebody should know. */
    DOUBTFUL,
    WRONG
  }

  /**
   * One thing that was looked at.
   *
   * @param value what is so
   * @param fix what to do; empty when nothing needs to be done
   */
  public record Seen(String what, Verdict verdict, String value, String fix) {}

  private Examination(Site site) {
    this.site = site;
    this.server = site.server();
  }

  /** Looks at everything, in reading order. */
  public static List<Seen> of(Site site, Optional<String> unfinished) {
    Examination examination = new Examination(site);
    examination.look(unfinished);
    return List.copyOf(examination.seen);
  }

  private void look(Optional<String> unfinished) {
    right("installation", site.traits().label() + ", " + server.installation());
    Stock stock = site.stockTaker().take(List.of());
    folder(stock);
    java(stock);
    disk();
    process(stock);
    ports(stock);
    site.kind().contradictions(stock).forEach(this::contradiction);
    site.kind().describe(site.files(), stock).stream()
        .flatMap(self -> self.doubts().stream())
        .forEach(this::doubt);
    if (stock.ownPorts().contains(server.ports().http())) {
      answer();
    }
    unfinished.ifPresent(
        what ->
            add(
                "deliveries",
                Verdict.DOUBTFUL,
                what,
                "Settle it: jolly recover --on " + server.name()));
  }

  private void doubt(SelfDescription.Doubt doubt) {
    String seen = doubt.seen().isEmpty() ? "" : " (" + doubt.seen() + ")";
    add(doubt.subject(), Verdict.DOUBTFUL, doubt.message() + seen, doubt.fix());
  }

  private void folder(Stock stock) {
    Facts facts = stock.at(server.folder());
    String what = server.folder() + ", of " + facts.access().owner();
    if (site.files().writable(server.folder())) {
      right("folder", what);
    } else {
      add(
          "folder",
          Verdict.WRONG,
          what + ": " + site.by() + " may not write there",
          "Run as " + facts.access().owner() + ", or fix its rights");
    }
  }

  private void java(Stock stock) {
    String what =
        stock.javaFeature()
            + ", "
            + server
                .runtime()
                .supply()
                .map(supply -> "not there yet, out of " + supply.archive().getFileName())
                .orElse(server.runtime().java().toString());
    int least = site.traits().leastJava();
    if (stock.javaFeature() >= least) {
      right("Java", what);
    } else {
      add(
          "Java",
          Verdict.WRONG,
          what + ": " + site.traits().label() + " needs " + least,
          "Name a newer 'java' in servers.toml");
    }
    server
        .runtime()
        .unresolved()
        .forEach(
            why ->
                add(
                    "variables",
                    Verdict.WRONG,
                    why,
                    "Give it its value, or take it out of servers.toml"));
  }

  private void disk() {
    long free = site.files().free(server.folder());
    String what = String.format(Locale.ROOT, "%.1f GB free", free / 1e9);
    if (free < LEAST_FREE_BYTES) {
      add("disk", Verdict.DOUBTFUL, what, "Make room there");
    } else {
      right("disk", what);
    }
  }

  private void process(Stock stock) {
    Presence presence = stock.process();
    if (presence.unread().isPresent()) {
      add(
          "process",
          Verdict.WRONG,
          "unknown: " + presence.unread().get(),
          "Run as the user who started it");
    } else if (presence.found().isEmpty()) {
      right("process", "stopped");
    } else {
      running(stock, presence.found().get());
    }
  }

  private void running(Stock stock, Running running) {
    String runs = "runs, pid " + running.identity().pid();
    if (running.ours()) {
      boolean stale =
          !running.fingerprint().equals(site.kind().processes().launch(stock).fingerprint());
      add(
          "process",
          stale ? Verdict.DOUBTFUL : Verdict.RIGHT,
          stale ? runs + ", with other options or files than described now" : runs,
          stale ? "The next delivery restarts it; so does jolly server restart" : "");
      return;
    }
    if (server.steering().unit().isPresent()) {
      right("process", runs + ", by unit " + server.steering().unit().get().name());
      return;
    }
    Optional<String> log = running.printsTo().map(server::shown);
    boolean told = log.isPresent() && log.equals(server.steering().log());
    Optional<String> unread = running.output().unread();
    String prints =
        unread
            .map(why -> ", and where it prints cannot be told: " + why)
            .or(() -> log.map(file -> ", prints to " + file))
            .orElse(", prints to no file");
    add(
        "process",
        told ? Verdict.RIGHT : Verdict.WRONG,
        runs + ", started by somebody else" + prints,
        told
            ? ""
            : log.map(file -> "Write log = \"" + file + "\" into servers.toml")
                .orElse(
                    unread.isPresent()
                        ? "Run as the user who started it"
                        : "Stop it; jolly starts it so that its output can be read"));
  }

  private void ports(Stock stock) {
    port(stock, server.ports().http(), "http");
    server.ports().https().ifPresent(https -> https(stock, https));
    server.ports().admin().ifPresent(port -> port(stock, port, "admin"));
    server.ports().beside().ifPresent(port -> port(stock, port, "beside"));
  }

  private void https(Stock stock, Https https) {
    port(stock, https.port(), "https");
    if (!stock.ownPorts().contains(https.port())) {
      return;
    }
    try (Requester requester = site.requesters().get()) {
      X509Certificate shown =
          requester.certificate(server.ports().overTls().orElseThrow(), ANSWERS_WITHIN);
      String digest = Certificates.digest(shown);
      long days = Duration.between(Instant.now(), shown.getNotAfter().toInstant()).toDays();
      String what = digest + ", for " + days + " days";
      if (https.certificate().filter(expected -> !expected.equals(digest)).isPresent()) {
        add(
            "certificate",
            Verdict.WRONG,
            what + ": another one is described",
            "Take 'certificate' out of servers.toml if that one is right");
      } else if (days < LEAST_DAYS) {
        add("certificate", Verdict.DOUBTFUL, what, "Renew it");
      } else {
        right("certificate", what);
      }
    } catch (IOException e) {
      add("certificate", Verdict.WRONG, "none is shown: " + e.getMessage(), "Read its log");
    }
  }

  private void port(Stock stock, int port, String key) {
    stock
        .stranger(port)
        .ifPresentOrElse(
            other ->
                add(
                    key,
                    Verdict.WRONG,
                    other.who() + " listens on " + port,
                    "End that program, or give the server another '" + key + "' in servers.toml"),
            () -> own(stock, port, key));
  }

  private void own(Stock stock, int port, String key) {
    boolean open = stock.ownPorts().contains(port);
    boolean expected = site.traits().hosts() && stock.process().found().isPresent();
    if (!open && stock.listening().containsKey(port)) {
      add(
          key,
          Verdict.DOUBTFUL,
          port + ", open; whether by this server cannot be told",
          "Run as the user who started it");
    } else if (open || !expected) {
      right(key, port + (open ? ", open" : ", nobody listens"));
    } else {
      add(
          key,
          Verdict.WRONG,
          port + ": nobody listens, although the server runs",
          "Look into its log: jolly server log " + server.name());
    }
  }

  private void contradiction(Wanted.Refused refused) {
    add(refused.subject(), Verdict.WRONG, refused.message(), refused.fix());
  }

  private void answer() {
    URI url = server.ports().at("/");
    Answer answer = site.ask(url, ANSWERS_WITHIN);
    if (answer.came()) {
      right("answers", answer.status() + " at " + url);
      fromHere();
    } else {
      add(
          "answers",
          site.traits().hosts() ? Verdict.WRONG : Verdict.DOUBTFUL,
          "nothing at " + url + ": " + answer.failure(),
          "Read its log: jolly server log " + server.name());
    }
  }

  /** What answers on its own machine may still not be reached by anybody else. */
  private void fromHere() {
    if (site.host().here()) {
      return;
    }
    Placement.Route route = Placement.Route.at(Placement.MAIN, "", server.ports());
    try (Requester here = site.outside().get();
        Requester there = site.requesters().get()) {
      Checker inside = new Checker(there, route.direct(), People.NOBODY);
      CheckResult asked = new Checker(here, route.base(), People.NOBODY).anyAnswer();
      new WayBlame(site.host(), site.server())
          .of(asked, route, inside::anyAnswer)
          .ifPresentOrElse(
              cause -> add("from here", Verdict.DOUBTFUL, cause.what(), cause.next()),
              () -> right("from here", asked.status() + " at " + route.base()));
    }
  }

  private void right(String what, String value) {
    add(what, Verdict.RIGHT, value, "");
  }

  private void add(String what, Verdict verdict, String value, String fix) {
    seen.add(new Seen(what, verdict, value, fix));
  }
}

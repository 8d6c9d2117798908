package jollycrate.front;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.app.Front;
import jollycrate.check.CheckResult;
import jollycrate.host.Listening;
import jollycrate.server.Cause;
import jollycrate.server.Keys;
import jollycrate.server.LogPlace;
import jollycrate.server.Placement;
import jollycrate.watch.LogSlice;
import jollycrate.watch.Site;

/**
 * Tells whether an answer that came through a web server is that server's own or the program's (RFC
 * 9110, sections 15.6.3 to 15.6.5).
 */
public final class FrontBlame {
  private static final int BAD_GATEWAY = 502;
  private static final int UNAVAILABLE = 503;
  private static final int GATEWAY_TIMEOUT = 504;

  private final Site site;

  public FrontBlame(Site site) {
    this.site = site;
  }

  /**
   * The front's part in a failed check; empty when the answer is the program's own.
   *
   * @param direct asks the program itself
   */
  public Optional<Cause> of(
      CheckResult through, Placement placement, Supplier<CheckResult> direct) {
    Optional<Front> front = site.server().front();
    boolean gateway = through.status() >= BAD_GATEWAY && through.status() <= GATEWAY_TIMEOUT;
    boolean askedDirectly = placement.route().base().equals(placement.route().direct());
    if (front.isEmpty() || !gateway || askedDirectly) {
      return Optional.empty();
    }
    int port = placement.route().direct().getPort();
    String upstream = upstream(front.get());
    if (!upstream.endsWith(":" + port)) {
      if (neverThrough(front.get(), placement.application())) {
        return Optional.of(
            Cause.of(
                "nothing was delivered through the web server at "
                    + front.get().address()
                    + " yet: it was described after the delivery",
                "Deliver again: jolly deploy --to " + site.server().name()));
      }
      return Optional.of(wrongUpstream(front.get(), upstream, port));
    }
    if (site.host().processes().listening(port).map(Optional::isEmpty).orElse(false)) {
      return Optional.of(
          Cause.of(
              "the program does not listen on port "
                  + port
                  + ", so the web server before it"
                  + " answers "
                  + through.status(),
              "Look what became of it: jolly server log " + site.server().name()));
    }
    CheckResult own = direct.get();
    return own.status() == through.status()
        ? Optional.empty()
        : Optional.of(ofTheFront(through, own, front.get()));
  }

  private boolean neverThrough(Front front, String application) {
    return site.stockTaker()
        .standing()
        .owner(application)
        .filter(
            owner ->
                owner.pieces().keySet().stream()
                    .map(key -> Keys.path(site.server(), key))
                    .noneMatch(front.config()::equals))
        .isPresent();
  }

  private String upstream(Front front) {
    String text = LogSlice.since(site, new LogPlace(front.config(), 0)).text();
    return site.kind()
        .splicer(front.config())
        .flatMap(splicer -> splicer.find(text, front.upstream()))
        .orElse("its own server, not ours");
  }

  private Cause wrongUpstream(Front front, String upstream, int port) {
    List<String> why = new ArrayList<>();
    why.add("the program was delivered to port " + port);
    String number = upstream.substring(upstream.lastIndexOf(':') + 1);
    if (number.matches("\\d{1,5}")) {
      Optional<Listening> there =
          site.host().processes().listening(Integer.parseInt(number)).orElse(Optional.empty());
      why.add(
          there
              .map(found -> found.program() + " listens on port " + number)
              .orElse("nobody listens on port " + number));
    }
    return new Cause(
        "the web server sends requests to the wrong place: " + upstream,
        front.config() + ", upstream " + front.upstream(),
        List.copyOf(why),
        "Somebody changed it since the delivery: deliver again",
        -1);
  }

  private static Cause ofTheFront(CheckResult through, CheckResult own, Front front) {
    String itself =
        "asked directly, the program answers "
            + own.status()
            + " after "
            + own.took().toMillis()
            + " ms";
    String at = "at " + front.address();
    return switch (through.status()) {
      case GATEWAY_TIMEOUT ->
          new Cause(
              "the web server "
                  + at
                  + " gave up waiting after "
                  + through.took().toMillis()
                  + " ms",
              "",
              List.of(itself),
              "Let the program answer sooner, or raise the web server's read time-out",
              -1);
      case UNAVAILABLE ->
          new Cause(
              "the web server " + at + " itself turned the request away",
              "",
              List.of(itself),
              "Look for a limit in its configuration, and into its error log",
              -1);
      default ->
          new Cause(
              "the web server " + at + " could not make sense of the program, or not reach it",
              "",
              List.of(itself),
              "Look into the web server's error log",
              -1);
    };
  }
}

package jollycrate.front;

import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import jollycrate.check.Answer;
import jollycrate.check.CheckResult;
import jollycrate.host.Host;
import jollycrate.host.Listening;
import jollycrate.server.Cause;
import jollycrate.server.Placement;
import jollycrate.server.Server;

/** Tells what lies between here and a server on another machine that answers there. */
public final class WayBlame {
  private static final int BAD_GATEWAY = 502;
  private static final int GATEWAY_TIMEOUT = 504;
  private static final int HTTPS = 443;
  private static final int HTTP = 80;

  private final Host host;
  private final Server server;

  public WayBlame(Host host, Server server) {
    this.host = host;
    this.server = server;
  }

  /** Whether something may have failed on the way, and not in the server. */
  private boolean mayBe(CheckResult asked) {
    boolean gateway = asked.status() >= BAD_GATEWAY && asked.status() <= GATEWAY_TIMEOUT;
    return switch (asked.why()) {
      case SILENCE, REFUSED, NO_WAY, NO_NAME, NO_TRUST, CUT -> true;
      case CAME -> gateway && server.ports().url().isPresent();
      case LATE, ENDLESS, GIVEN_UP -> false;
    };
  }

  /**
   * What failed on the way, or why the server does not answer on its own machine either; empty when
   * it was reached.
   *
   * @param asked from here
   * @param there asks the same server on its own machine
   */
  public Optional<Cause> of(CheckResult asked, Placement.Route route, Supplier<CheckResult> there) {
    if (host.here() || !mayBe(asked)) {
      return Optional.empty();
    }
    CheckResult own = there.get();
    if (own.why() != Answer.Why.CAME) {
      return own.cause();
    }
    if (own.status() == asked.status()) {
      return Optional.empty();
    }
    URI url = route.base();
    int port = route.direct().getPort();
    Optional<Listening> listening =
        host.processes().listening(port, server.ports().address()).orElse(Optional.empty());
    return Optional.of(new Way(url, port, own, listening).cause(asked));
  }

  /**
   * A way that leads nowhere.
   *
   * @param url that was asked from here
   * @param port where the server listens
   * @param own what it answered there
   */
  private final class Way {
    private final URI url;
    private final int port;
    private final CheckResult own;
    private final Optional<Listening> listening;

    Way(URI url, int port, CheckResult own, Optional<Listening> listening) {
      this.url = url;
      this.port = port;
      this.own = own;
      this.listening = listening;
    }

    Cause cause(CheckResult asked) {
      Answer.Why why = asked.why();
      if (why == Answer.Why.NO_NAME) {
        return told(
            "the name " + url.getHost() + " is not known here",
            "Say how people reach it: url = \"https://...\" in [server."
                + server.name()
                + "]"
                + orFromHost());
      }
      if (why == Answer.Why.NO_TRUST) {
        return told(
            asked.cause().map(Cause::what).orElse("its certificate is not trusted here"),
            "Let what answers at "
                + url.getAuthority()
                + " show a certificate with its whole chain");
      }
      if (!isPortOfServer()) {
        return beforeIt(asked);
      }
      if (listening.filter(Listening::isOnLoopback).isPresent()) {
        return told(
            "port "
                + port
                + " is bound to loopback on "
                + host.name()
                + ", so nobody but that machine itself reaches it",
            "Bind it to an address that people reach ('jolly server change' with address=), or say"
                + " by which web server before it they do: url = \"https://...\" in [server."
                + server.name()
                + "]"
                + orFromHost());
      }
      return filtered(why);
    }

    private boolean isPortOfServer() {
      int asked =
          url.getPort() > 0 ? url.getPort() : url.getScheme().equals("https") ? HTTPS : HTTP;
      return asked == port;
    }

    /** What people reach is another port than the server's own. */
    private Cause beforeIt(CheckResult asked) {
      String at = url.getScheme() + "://" + url.getAuthority();
      String next = "Look at what is to answer there before " + server.name() + orFromHost();
      return switch (asked.why()) {
        case SILENCE ->
            told(
                "nothing comes back from " + at + ": it is filtered on the way to it",
                "Open its port in the inbound rules of that machine, and of its provider"
                    + orFromHost());
        case CAME ->
            told("what answers at " + at + " (" + asked.status() + ") does not reach it", next);
        default ->
            told("nobody answers at " + at + ", as 'url' says, although the server does", next);
      };
    }

    private Cause filtered(Answer.Why why) {
      String next =
          "Open TCP port "
              + port
              + " in the inbound rules of "
              + host.name()
              + ", and of its provider"
              + orFromHost();
      return switch (why) {
        case SILENCE ->
            told(
                "port "
                    + port
                    + " is filtered on the way: an inbound rule of the host or its provider drops"
                    + " what comes from here",
                next);
        case CUT ->
            told(
                "the connection was made, and then broken off by something on the way: a proxy, or a"
                    + " rule that looks into what is sent",
                "Ask who runs the network between here and " + host.name() + orFromHost());
        default ->
            told(
                "port "
                    + port
                    + " is rejected on the way: an inbound rule of the host or its provider"
                    + " turns it away"
                    + elsewhere(),
                next);
      };
    }

    /** A name that leads to another machine is refused there as a rule would. */
    private String elsewhere() {
      try {
        return ", or "
            + url.getHost()
            + " ("
            + InetAddress.getByName(url.getHost()).getHostAddress()
            + ") is another machine";
      } catch (UnknownHostException led) {
        return "";
      }
    }

    private String orFromHost() {
      return ". What need not be reached from here is asked there: from = \"host\" in [[check]]";
    }

    private Cause told(String what, String next) {
      List<String> why = new ArrayList<>();
      why.add(
          "asked on "
              + host.name()
              + " itself, it answers "
              + own.status()
              + " after "
              + own.took().toMillis()
              + " ms");
      listening.ifPresent(
          found ->
              why.add(
                  "it listens on "
                      + (found.address().isAnyLocalAddress()
                          ? "every address"
                          : found.address().getHostAddress())
                      + ", port "
                      + port));
      return new Cause(what, url.toString(), List.copyOf(why), next, -1);
    }
  }
}

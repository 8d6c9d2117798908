package jollycrate.front;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Ports;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.check.HttpRequester;
import jollycrate.check.People;
import jollycrate.host.Host;
import jollycrate.server.Cause;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What lies between here and a server is told from the server; requests are real ones. */
class WayBlameTest {
  private final HttpRequester requester = new HttpRequester(() -> false);
  private final List<HttpServer> servers = new ArrayList<>();

  @AfterEach
  void end() {
    requester.close();
    servers.forEach(server -> server.stop(0));
  }

  private HttpServer answering(String address, int status) throws IOException {
    HttpServer server = HttpServer.create(new InetSocketAddress(address, 0), 0);
    servers.add(server);
    server.createContext(
        "/",
        exchange -> {
          exchange.sendResponseHeaders(status, -1);
          exchange.close();
        });
    server.start();
    return server;
  }

  /** Asks a server as if it were on another machine. */
  private Optional<Cause> blamed(String url, String direct) {
    Host here = Host.local();
    Host host =
        new Host("app1", false, here.files(), here.processes(), here.sight(), here.environment());
    Ports ports =
        new Ports("0.0.0.0", 1, Optional.empty(), Optional.empty(), Optional.empty())
            .reachedBy(Optional.of(URI.create(url)));
    Path folder = Path.of("/srv/shop");
    Server server =
        new Server(
            "shop", folder, folder, ports, null, null, Optional.empty(), null, Optional.empty());
    Placement.Route route =
        new Placement.Route(Placement.MAIN, "", URI.create(url + "/"), URI.create(direct + "/"));
    CheckResult asked = new Checker(requester, route.base(), People.NOBODY).anyAnswer();
    return new WayBlame(host, server)
        .of(asked, route, () -> new Checker(requester, route.direct(), People.NOBODY).anyAnswer());
  }

  private static String at(String host, HttpServer server) {
    return "http://" + host + ":" + server.getAddress().getPort();
  }

  private static int freePort() throws IOException {
    try (ServerSocket socket = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      return socket.getLocalPort();
    }
  }

  @Test
  void aServerThatIsReachedIsNotBlamedOnTheWay() throws IOException {
    HttpServer program = answering("127.0.0.1", 500);
    assertThat(blamed(at("127.0.0.1", program), at("127.0.0.1", program))).isEmpty();
  }

  @Test
  void aPortOnLoopbackIsForItsOwnMachineAlone() throws IOException {
    HttpServer program = answering("127.0.0.1", 200);
    Cause cause = blamed(at("127.0.0.2", program), at("127.0.0.1", program)).orElseThrow();
    assertThat(cause.what()).contains("is bound to loopback on app1");
    assertThat(cause.why().get(0)).startsWith("asked on app1 itself, it answers 200 after ");
    assertThat(cause.next()).contains("url = ").contains("from = \"host\"");
  }

  @Test
  void aPortThatIsBoundOtherwiseIsRejectedOnTheWay() throws IOException {
    HttpServer program = answering("127.0.0.9", 200);
    Cause cause = blamed(at("127.0.0.2", program), at("127.0.0.9", program)).orElseThrow();
    assertThat(cause.what())
        .contains("is rejected on the way", "or 127.0.0.2 (127.0.0.2) is another machine");
    assertThat(cause.next()).contains("Open TCP port");
  }

  @Test
  void aNameThatNobodyKnowsIsSaidToBe() throws IOException {
    HttpServer program = answering("127.0.0.1", 200);
    Cause cause = blamed(at("nobody.invalid", program), at("127.0.0.1", program)).orElseThrow();
    assertThat(cause.what()).contains("the name nobody.invalid is not known here");
  }

  @Test
  void whatStandsBeforeTheServerIsBlamedForItsOwnAnswers() throws IOException {
    String program = at("127.0.0.1", answering("127.0.0.1", 200));
    String proxy = at("127.0.0.1", answering("127.0.0.1", 502));
    assertThat(blamed(proxy, program).orElseThrow().what()).contains("(502) does not reach it");
    assertThat(blamed("http://127.0.0.1:" + freePort(), program).orElseThrow().what())
        .contains("nobody answers at http://127.0.0.1:");
  }

  @Test
  void aServerThatDoesNotAnswerThereEitherIsToBlame() throws IOException {
    int nobody = freePort();
    Cause cause = blamed("http://127.0.0.2:" + nobody, "http://127.0.0.1:" + nobody).orElseThrow();
    assertThat(cause.what()).contains("connection to 127.0.0.1:" + nobody + " refused");
  }
}

package jollycrate.delivery;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import jollycrate.app.Ask;
import jollycrate.app.Check;
import jollycrate.app.Expect;
import jollycrate.app.Statuses;
import jollycrate.check.CheckResult;
import jollycrate.check.Checker;
import jollycrate.check.HttpRequester;
import jollycrate.check.People;
import jollycrate.server.Cause;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** What a proxy answers is told as the proxy's. */
class WayRunTest {
  private static final Check CHECK =
      new Check("tickets", Ask.get("/tickets", Optional.empty()), Expect.of(Statuses.SUCCESS));

  private final HttpRequester requester = new HttpRequester(() -> false);
  private HttpServer proxy;
  private URI base;

  private CheckResult through(Function<HttpExchange, Integer> status) throws IOException {
    proxy = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
    proxy.createContext(
        "/",
        exchange -> {
          exchange.sendResponseHeaders(status.apply(exchange), -1);
          exchange.close();
        });
    proxy.start();
    base = URI.create("http://127.0.0.1:" + proxy.getAddress().getPort() + "/");
    return asked();
  }

  private CheckResult asked() {
    CheckResult itself = CheckResult.withoutAnswer("", "", null, List.of(), Optional.empty(), true);
    return new WayRun(new Checker(requester, base, People.NOBODY), base)
        .ask(List.of(CHECK), itself);
  }

  @AfterEach
  void stop() {
    proxy.stop(0);
    requester.close();
  }

  private static String cause(CheckResult result) {
    assertThat(result.passed()).isFalse();
    return result.cause().map(Cause::what).orElse("");
  }

  @Test
  void whatIsTheSameSaysNothingAndProvesNothing() throws IOException {
    CheckResult same = through(exchange -> 200);
    assertThat(same.passed()).isTrue();
    assertThat(same.proves()).isFalse();
    assertThat(same.name()).isEqualTo("through http://127.0.0.1:" + base.getPort());
  }

  @Test
  void aCopyOfAnEarlierAnswerIsNotTheServersFault() throws IOException {
    CheckResult stale =
        through(exchange -> exchange.getRequestURI().getQuery() == null ? 404 : 200);
    assertThat(stale.passed()).isTrue();
    assertThat(stale.name()).contains("a stale copy from its cache: 'tickets'");
  }

  @Test
  void anotherReleaseBehindItIsSaid() throws IOException {
    CheckResult other = through(exchange -> 302);
    assertThat(other.passed()).isTrue();
    assertThat(other.name()).contains("another server or release answers");
  }

  @Test
  void whereNobodyGetsThroughItFails() throws IOException {
    assertThat(cause(through(exchange -> 502))).contains("(502) does not reach the server");
    proxy.stop(0);
    assertThat(cause(asked())).contains("refused");
  }

  @Test
  void aRouteThatIsMissingIsTheProxys() throws IOException {
    assertThat(cause(through(exchange -> 404))).contains("does not pass this path on");
  }
}

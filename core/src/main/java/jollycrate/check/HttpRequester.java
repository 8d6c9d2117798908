package jollycrate.check;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NoRouteToHostException;
import java.net.Socket;
import java.net.SocketException;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicReference;
import java.util.function.BooleanSupplier;
import java.util.function.Supplier;
import java.util.zip.ZipException;
import javax.net.ssl.SSLException;
import jollycrate.browser.Visit;
import org.apache.hc.client5.http.ConnectTimeoutException;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.SchemePortResolver;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.cookie.BasicCookieStore;
import org.apache.hc.client5.http.cookie.CookieSpecFactory;
import org.apache.hc.client5.http.cookie.CookieStore;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.cookie.RFC6265CookieSpecFactory;
import org.apache.hc.client5.http.impl.io.DefaultHttpClientConnectionOperator;
import org.apache.hc.client5.http.impl.io.ManagedHttpClientConnectionFactory;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManager;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.client5.http.io.HttpClientConnectionOperator;
import org.apache.hc.client5.http.protocol.HttpClientContext;
import org.apache.hc.client5.http.ssl.DefaultClientTlsStrategy;
import org.apache.hc.client5.http.ssl.TlsSocketStrategy;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.ConnectionClosedException;
import org.apache.hc.core5.http.EndpointDetails;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.NoHttpResponseException;
import org.apache.hc.core5.http.config.Http1Config;
import org.apache.hc.core5.http.config.RegistryBuilder;
import org.apache.hc.core5.pool.PoolConcurrencyPolicy;
import org.apache.hc.core5.util.TimeValue;
import org.apache.hc.core5.util.Timeout;

/** Requests over a blocking client that never repeats one. */
public final class HttpRequester implements Requester {
  private static final int UNAUTHORIZED = 401;
  private static final int HTTPS = 443;
  private static final Set<String> SAFE = Set.of("GET", "HEAD");
  private static final int MOST_HEADERS = 500;
  private static final int MOST_IN_A_HEADER = 64 << 10;
  private static final int MOST_CONNECTIONS = 256;
  private static final Timeout CONNECT = Timeout.ofSeconds(5);

  /**
   * Cookies go back to the one server they came from, so the list of suffixes that many sites share
   * need not be read, which takes longer than a request.
   */
  private static final CookieSpecFactory COOKIES = new RFC6265CookieSpecFactory();

  /** Certificates are read when something is asked over TLS, as that takes a while. */
  private static TlsSocketStrategy whenAsked(Optional<Path> trust) {
    AtomicReference<TlsSocketStrategy> read = new AtomicReference<>();
    return (socket, host, port, attachment, context) -> {
      synchronized (read) {
        if (read.get() == null) {
          read.set(
              trust.isPresent()
                  ? new DefaultClientTlsStrategy(TrustedCertificates.and(trust.get()))
                  : DefaultClientTlsStrategy.createDefault());
        }
      }
      return read.get().upgrade(socket, host, port, attachment, context);
    };
  }

  private final Map<String, CookieStore> cookies = new ConcurrentHashMap<>();
  private final Map<String, String> addresses = new ConcurrentHashMap<>();
  private final BooleanSupplier interrupted;
  private final Supplier<Socket> sockets;
  private final DnsResolver names;
  private final PoolingHttpClientConnectionManager connections;
  private final CloseableHttpClient client;
  private final OpenExchanges exchanges = new OpenExchanges();

  /** By sockets of this machine. */
  public HttpRequester(BooleanSupplier interrupted) {
    this(interrupted, Socket::new, Optional.empty());
  }

  /**
   * By other sockets.
   *
   * @param interrupted whether somebody asked to stop: then a request under way is given up
   * @param trust certificates in PEM that are trusted besides those that this Java trusts
   */
  public HttpRequester(
      BooleanSupplier interrupted, Supplier<Socket> sockets, Optional<Path> trust) {
    this.interrupted = interrupted;
    this.sockets = sockets;
    this.names = new KnownNames(addresses);
    this.connections = connections(sockets, names, whenAsked(trust));
    this.client = client(connections);
  }

  private static PoolingHttpClientConnectionManager connections(
      Supplier<Socket> sockets, DnsResolver names, TlsSocketStrategy tls) {
    return new By(sockets)
        .setTlsSocketStrategy(tls)
        .setDnsResolver(names)
        .setPoolConcurrencyPolicy(PoolConcurrencyPolicy.LAX)
        .setConnectionFactory(
            ManagedHttpClientConnectionFactory.builder()
                .http1Config(
                    Http1Config.custom()
                        .setMaxHeaderCount(MOST_HEADERS)
                        .setMaxLineLength(MOST_IN_A_HEADER)
                        .build())
                .build())
        .setMaxConnTotal(MOST_CONNECTIONS)
        .setMaxConnPerRoute(MOST_CONNECTIONS)
        .setDefaultConnectionConfig(ConnectionConfig.custom().setConnectTimeout(CONNECT).build())
        .build();
  }

  private static CloseableHttpClient client(PoolingHttpClientConnectionManager connections) {
    return HttpClients.custom()
        .disableAutomaticRetries()
        .disableRedirectHandling()
        .disableAuthCaching()
        .disableContentCompression()
        .setUserAgent("jolly")
        .setDefaultCookieSpecRegistry(name -> COOKIES)
        .setConnectionManager(connections)
        .build();
  }

  /** Builds what connects by given sockets. */
  private static final class By extends PoolingHttpClientConnectionManagerBuilder {
    private final Supplier<Socket> sockets;

    By(Supplier<Socket> sockets) {
      this.sockets = sockets;
    }

    @Override
    protected HttpClientConnectionOperator createConnectionOperator(
        SchemePortResolver ports, DnsResolver names, TlsSocketStrategy tls) {
      return new DefaultHttpClientConnectionOperator(
          proxy -> sockets.get(),
          ports,
          names,
          RegistryBuilder.<TlsSocketStrategy>create().register("https", tls).build());
    }
  }

  /**
   * A server that names no encoding in its challenge may read a name or password beyond ASCII in
   * UTF-8 or in ISO 8859-1 (RFC 7617, section 2.1): when the first is not accepted, the second is
   * tried.
   */
  @Override
  public Answer send(Request request, Duration limit) {
    Answer answer = send(request, StandardCharsets.UTF_8, limit);
    boolean beyondAscii =
        request
            .session()
            .credentials()
            .filter(known -> !StandardCharsets.US_ASCII.newEncoder().canEncode(pair(known)))
            .isPresent();
    return answer.status() == UNAUTHORIZED && beyondAscii
        ? send(request, StandardCharsets.ISO_8859_1, limit)
        : answer;
  }

  /**
   * A connection that was kept open may have been closed by the server just now: what is safe to
   * repeat is sent once more, on a fresh one (RFC 9112, section 9.3.1).
   */
  private Answer send(Request asked, Charset charset, Duration limit) {
    Sent first = sendOnce(asked, charset, limit);
    if (!first.staleConnection() || !SAFE.contains(asked.method())) {
      return first.answer();
    }
    connections.closeIdle(TimeValue.ZERO_MILLISECONDS);
    return sendOnce(asked, charset, limit.minus(first.answer().took())).answer();
  }

  /**
   * What became of a request.
   *
   * @param staleConnection whether none came because a kept connection was closed meanwhile
   */
  private record Sent(Answer answer, boolean staleConnection) {}

  private Sent sendOnce(Request asked, Charset charset, Duration limit) {
    HttpUriRequestBase request = new HttpUriRequestBase(asked.method(), asked.url());
    asked.sent().ifPresent(sent -> request.setEntity(SentBody.of(sent)));
    request.setHeader("Cache-Control", "no-cache");
    asked.headers().forEach(request::setHeader);
    Session session = asked.session();
    session
        .credentials()
        .ifPresent(known -> request.addHeader("Authorization", known.header(charset)));
    HttpClientContext context = HttpClientContext.create();
    context.setCookieStore(
        cookies.computeIfAbsent(session.cookies(), first -> new BasicCookieStore()));
    context.setRequestConfig(RequestConfig.custom().setResponseTimeout(Timeout.DISABLED).build());
    BooleanSupplier givenUp = session.untilDone() ? () -> false : interrupted;
    Exchange exchange = Exchange.begin(request, limit, givenUp);
    exchanges.begins(exchange);
    try {
      return new Sent(
          client.execute(request, context, response -> answer(response, exchange)), false);
    } catch (IOException e) {
      Optional<Answer> cut = exchange.cut();
      return new Sent(
          cut.orElseGet(() -> failure(e, asked.url(), exchange.took())),
          cut.isEmpty() && !exchange.isAnswered() && wasKept(context) && isClosed(e));
    } catch (IllegalStateException aborted) {
      return new Sent(exchange.cut().orElseThrow(() -> aborted), false);
    } finally {
      exchanges.ends(exchange);
    }
  }

  private static boolean wasKept(HttpClientContext context) {
    EndpointDetails connection = context.getEndpointDetails();
    return connection != null && connection.getRequestCount() > 1;
  }

  private static boolean isClosed(IOException e) {
    return e instanceof NoHttpResponseException
        || e instanceof ConnectionClosedException
        || e instanceof SocketException;
  }

  @Override
  public void leads(String name, String address) {
    if (!name.equals(address)) {
      addresses.put(name, address);
    }
  }

  @Override
  public List<Visit.Cookie> cookies(String session) {
    CookieStore store = cookies.get(session);
    return store == null
        ? List.of()
        : store.getCookies().stream()
            .map(
                one ->
                    new Visit.Cookie(one.getName(), one.getValue(), one.getDomain(), one.getPath()))
            .toList();
  }

  @Override
  public X509Certificate certificate(URI url, Duration limit) throws IOException {
    String host = url.getHost().replaceAll("[\\[\\]]", "");
    InetAddress address = names.resolve(host)[0];
    int port = url.getPort() < 0 ? HTTPS : url.getPort();
    return Certificates.shown(sockets.get(), new InetSocketAddress(address, port), limit);
  }

  private static String pair(Credentials known) {
    return known.user() + ":" + known.secret();
  }

  private static Answer answer(ClassicHttpResponse response, Exchange exchange) throws IOException {
    exchange.answerBegins();
    Map<String, String> headers = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
    for (Header header : response.getHeaders()) {
      headers.merge(header.getName(), header.getValue(), (one, other) -> one + ", " + other);
    }
    HttpEntity entity = response.getEntity();
    Answer.Body body = Answer.Body.NONE;
    if (entity != null && entity.getContent() != null) {
      body = CameBody.read(headers, entity.getContent());
    }
    return Answer.came(response.getCode(), headers, body, exchange.took());
  }

  private static Answer failure(IOException e, URI url, Duration took) {
    String at = url.getAuthority();
    if (e instanceof ConnectTimeoutException) {
      return Answer.failed(
          took,
          Answer.Why.SILENCE,
          "no connection to " + at + " came about within " + CONNECT.toSeconds() + " s",
          "Look for a firewall between here and the server");
    }
    if (e instanceof NoRouteToHostException) {
      return Answer.failed(
          took, Answer.Why.NO_WAY, "no way leads to " + at, "Fix the address or the network");
    }
    if (e instanceof ConnectException) {
      return Answer.failed(
          took,
          Answer.Why.REFUSED,
          "connection to " + at + " refused: nothing listens there",
          "Start the server: 'jolly server start NAME'");
    }
    if (e instanceof UnknownHostException) {
      return Answer.failed(
          took,
          Answer.Why.NO_NAME,
          "the name " + url.getHost() + " is not known",
          "Fix the address");
    }
    if (e instanceof SSLException) {
      return Answer.failed(
          took,
          Answer.Why.NO_TRUST,
          "the certificate shown at " + at + " is not trusted here: " + e.getMessage(),
          "Let it show one of an authority that this Java trusts, with its whole chain, or name"
              + " your team's in 'trust' of the server (servers.toml)");
    }
    if (e instanceof ZipException) {
      return Answer.failed(
          took,
          Answer.Why.CUT,
          "the answer is not compressed as its header says: " + e.getMessage(),
          "Look at what compresses it: application, server or proxy");
    }
    if (e instanceof NoHttpResponseException) {
      return Answer.failed(
          took,
          Answer.Why.CUT,
          "the server closed the connection without an answer",
          "Read its log");
    }
    return Answer.failed(
        took, Answer.Why.CUT, "the exchange broke off: " + e.getMessage(), "Read its log");
  }

  @Override
  public void close() {
    exchanges.close();
    client.close(org.apache.hc.core5.io.CloseMode.GRACEFUL);
  }
}

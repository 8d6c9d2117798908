package jollycrate.app;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Where a server listens.
 *
 * @param address that the HTTP listener binds
 * @param http HTTP port
 * @param https its HTTPS listener
 * @param admin port of the admin listener, on loopback only
 * @param beside port on which a service's new release comes up beside the old one
 * @param url by which people reach it, without a path; empty: by the HTTP port
 * @param trust certificates in PEM (RFC 7468) by which one is trusted there, besides those that
 *     this Java trusts
 * @param machine its machine
 */
public record Ports(
    String address,
    int http,
    Optional<Https> https,
    Optional<Integer> admin,
    Optional<Integer> beside,
    Optional<URI> url,
    @JsonIgnore Optional<Path> trust,
    @JsonIgnore Machine machine) {
  private static final int HTTP = 80;
  private static final int HTTPS = 443;
  private static final String LOOPBACK = "127.0.0.1";

  /**
   * Another machine.
   *
   * @param name what it is called in descriptions; empty for this machine
   * @param address where it is reached; empty while that is not known
   */
  public record Machine(String name, String address) {
    private static final Machine HERE = new Machine("", "");
  }

  /** On this machine. */
  public Ports(
      String address,
      int http,
      Optional<Https> https,
      Optional<Integer> admin,
      Optional<Integer> beside) {
    this(address, http, https, admin, beside, Optional.empty(), Optional.empty(), Machine.HERE);
  }

  /** The same on another machine. */
  public Ports on(String host) {
    return new Ports(
        address, http, https, admin, beside, url, trust, new Machine(host, machine.address));
  }

  /** The same without an admin listener. */
  public Ports withoutAdmin() {
    return new Ports(address, http, https, Optional.empty(), beside, url, trust, machine);
  }

  /** The same, reached by people by another address. */
  public Ports reachedBy(Optional<URI> address) {
    return new Ports(this.address, http, https, admin, beside, address, trust, machine);
  }

  /** The same where some more certificates are trusted. */
  public Ports trusting(Optional<Path> certificates) {
    return new Ports(address, http, https, admin, beside, url, certificates, machine);
  }

  /** The same where people reach it, unless its description says, by its machine's address. */
  public Ports reachedAt(String machineAddress) {
    String host = machineAddress.contains(":") ? "[" + machineAddress + "]" : machineAddress;
    Ports there =
        new Ports(address, http, https, admin, beside, url, trust, new Machine(machine.name, host));
    return there.reachedBy(Optional.of(url.orElseGet(() -> url(host, http, ""))));
  }

  /**
   * Whether its own listener answers at an address, and no proxy before it.
   *
   * @param asked of the main listener, as people reach it
   */
  public boolean isOwn(URI asked) {
    boolean tls = asked.getScheme().equals("https");
    int port = asked.getPort() > 0 ? asked.getPort() : tls ? HTTPS : HTTP;
    boolean listens = tls ? https.filter(own -> own.port() == port).isPresent() : port == http;
    return listens
        && (machine.name.isEmpty()
                ? List.of(boundName(), LOOPBACK, "localhost")
                : List.of(machine.name, machine.address))
            .contains(asked.getHost());
  }

  /** Where people reach a path. */
  public URI publicly(String path) {
    return url.map(to -> url(to.getScheme(), to.getHost(), to.getPort(), path))
        .orElseGet(() -> at(path));
  }

  /** Every port of its own. */
  public List<Integer> all() {
    return Stream.of(Optional.of(http), https.map(Https::port), admin, beside)
        .flatMap(Optional::stream)
        .toList();
  }

  /**
   * Where a path is reached over HTTP.
   *
   * @param path with any characters, which are escaped where a URL needs that
   */
  public URI at(String path) {
    return url(hostName(), http, path);
  }

  /** The same by the name of a virtual host. */
  public URI atHost(String host, String path) {
    return url(host, http, path);
  }

  /** The same behind the admin listener. */
  public Optional<URI> atAdmin(String path) {
    return admin.map(port -> url(machine.name.isEmpty() ? LOOPBACK : machine.name, port, path));
  }

  /** Where everything is reached over HTTPS. */
  public Optional<URI> overTls() {
    return https.map(listener -> url("https", hostName(), listener.port(), "/"));
  }

  private static URI url(String host, int port, String path) {
    return url("http", host, port, path);
  }

  private static URI url(String scheme, String host, int port, String path) {
    try {
      return new URI(scheme, null, host, port, path, null, null);
    } catch (URISyntaxException e) {
      throw new IllegalArgumentException(e);
    }
  }

  /** The host part of addresses that reach what it binds. */
  public String hostName() {
    return machine.name.isEmpty() ? boundName() : machine.name;
  }

  /** The same as seen from its own machine. */
  @JsonIgnore
  public String boundName() {
    boolean any = address.equals("0.0.0.0") || address.equals("::");
    String reached = any ? LOOPBACK : address;
    return reached.contains(":") ? "[" + reached + "]" : reached;
  }
}

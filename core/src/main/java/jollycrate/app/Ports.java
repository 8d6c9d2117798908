package jollycrate.app;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * Where a server listens.
 *
 * @param address that the HTTP listener binds
 * @param http HTTP port
 * @param admin port of the admin listener, on loopback only
 * @param beside port on which a service's new release comes up beside the old one
 */
public record Ports(String address, int http, Optional<Integer> admin, Optional<Integer> beside) {

  /** Every port of its own. */
  public List<Integer> all() {
    return Stream.of(Optional.of(http), admin, beside).flatMap(Optional::stream).toList();
  }

  /** The host part of addresses that reach what it binds. */
  public String hostName() {
    boolean any = address.equals("0.0.0.0") || address.equals("::");
    String reached = any ? "127.0.0.1" : address;
    return reached.contains(":") ? "[" + reached + "]" : reached;
  }
}

package jollycrate.tomcat;

import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import jollycrate.server.Wanted;

/**
 * Whether the server will listen on the port that is described.
 *
 * @param connectors as its configuration has them
 * @param key of the port in servers.toml
 */
record PortDoubt(List<ServerXml.Connector> connectors, int port, String key) {
  /** Why it will not; empty when it will, or a connector's port is not known. */
  Optional<Wanted.Refused> refused() {
    boolean known = connectors.stream().allMatch(connector -> connector.port().isPresent());
    boolean there =
        connectors.stream().anyMatch(found -> found.port().equals(OptionalInt.of(port)));
    if (there || !known) {
      return Optional.empty();
    }
    String others =
        connectors.stream()
            .map(found -> found.port().getAsInt() + " (" + found.where() + ")")
            .collect(Collectors.joining(", "));
    return Optional.of(
        new Wanted.Refused(
            "port " + port,
            "the server does not listen on it: conf/server.xml has "
                + (others.isEmpty() ? "no connector for HTTP" : others),
            "Fix '" + key + "' in servers.toml"));
  }
}

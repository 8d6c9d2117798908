package jollycrate.app;

import java.net.URI;
import java.nio.file.Path;
import java.util.List;

/**
 * A web server before a service, which sends requests on to it.
 *
 * @param config its configuration file in which the upstream stands
 * @param upstream name of that
 * @param address where people reach the service
 * @param test command that checks the configuration
 * @param reload command that makes the running web server read it
 */
public record Front(
    Path config, String upstream, URI address, List<String> test, List<String> reload) {
  private static final int HTTP = 80;
  private static final int HTTPS = 443;

  /** The port that it listens on. */
  public int port() {
    int standard = address.getScheme().equals("https") ? HTTPS : HTTP;
    return address.getPort() > 0 ? address.getPort() : standard;
  }
}

package jollycrate.app;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.Optional;

/** Addresses of servers, as people write them. */
final class WebAddress {
  private WebAddress() {}

  /**
   * What a URL says without path, query and user (RFC 6454, section 4); empty when it says more.
   */
  static Optional<URI> origin(String url) {
    try {
      URI read = new URI(url.replaceFirst("/$", ""));
      boolean web = "http".equals(read.getScheme()) || "https".equals(read.getScheme());
      boolean only = read.getRawPath() != null && read.getRawPath().isEmpty();
      boolean more =
          read.getRawQuery() != null
              || read.getRawFragment() != null
              || read.getRawUserInfo() != null
              || read.getPort() == 0
              || read.getPort() > 65_535;
      return Optional.of(read).filter(it -> web && only && !more && it.getHost() != null);
    } catch (URISyntaxException e) {
      return Optional.empty();
    }
  }

  /** Host part of a URL; empty when it is none. */
  static Optional<String> hostOf(String url) {
    try {
      return Optional.ofNullable(new URI(url).getHost());
    } catch (URISyntaxException e) {
      return Optional.empty();
    }
  }
}

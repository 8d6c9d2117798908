package jollycrate.browser;

import java.net.URI;
import java.time.Duration;
import java.util.List;
import java.util.Map;

/**
 * What a browser is to look at, and as whom.
 *
 * @param headers sent with each request to that host; all other hosts are out of its reach
 * @param cookies that it has already
 * @param limit longest time until the page is quiet
 */
public record Visit(URI url, Map<String, String> headers, List<Cookie> cookies, Duration limit) {
  /** A cookie (RFC 6265). */
  public record Cookie(String name, String value, String domain, String path) {}
}

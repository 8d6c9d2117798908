package jollycrate.app;

import java.net.URI;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;

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
  private static final Map<String, String> FIXES =
      Map.of(
          "config", "Name its configuration file in which the upstream stands",
          "upstream", "Name the upstream in it",
          "url", "Say where people reach it, like \"http://127.0.0.1:8080\"",
          "test", "Give the command that checks its configuration, like [\"nginx\", \"-t\"]",
          "reload",
              "Give the command that makes it read that, like [\"nginx\", \"-s\", \"reload\"]");

  static Optional<Front> read(Section section, Path folder) {
    if (section.isEmpty()) {
      return Optional.empty();
    }
    for (String key : List.of("config", "upstream", "url", "test", "reload")) {
      if (!section.has(key)) {
        section.missing(key, FIXES.get(key));
      }
    }
    String address = section.text("url").orElse("http://unnamed/");
    if (!address.matches("https?://[^/\\s]+/?") || WebAddress.hostOf(address).isEmpty()) {
      section.problem(
          "url",
          "'" + address + "' is no URL of a web server",
          "Write it like \"http://127.0.0.1:8080\"");
      address = "http://unnamed/";
    }
    Front front =
        new Front(
            folder.resolve(section.text("config").orElse("unnamed")).normalize(),
            section.text("upstream").orElse(""),
            URI.create(address.endsWith("/") ? address : address + "/"),
            section.arguments("test"),
            section.arguments("reload"));
    section.end();
    return Optional.of(front);
  }

  /** The same with its configuration where it really stands: a link to it stays. */
  public Front at(Path real) {
    return new Front(real, upstream, address, test, reload);
  }

  /** The port that it listens on. */
  public int port() {
    int standard = address.getScheme().equals("https") ? HTTPS : HTTP;
    return address.getPort() > 0 ? address.getPort() : standard;
  }
}

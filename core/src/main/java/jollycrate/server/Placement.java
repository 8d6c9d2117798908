package jollycrate.server;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;

/**
 * A release at a path on a listener of a server.
 *
 * @param release what answers there
 * @param route where it answers
 * @param switchPath the file that makes it live
 * @param traces paths that the server makes by itself for it
 * @param timing how long it may take
 */
public record Placement(
    @JsonUnwrapped Release release,
    @JsonUnwrapped Route route,
    Path switchPath,
    List<Path> traces,
    @JsonUnwrapped Timing timing) {

  /**
   * A version of an application.
   *
   * @param version may be empty
   * @param digest SHA-256 of its artifact
   * @param packages of its own classes, to find it in stack traces
   */
  public record Release(String application, String version, String digest, List<String> packages) {}

  /**
   * A path on a listener.
   *
   * @param listener name of the listener
   * @param contextPath empty for the root
   * @param base its address, ending in a slash
   * @param direct the same without a web server before it
   */
  public record Route(String listener, String contextPath, URI base, URI direct) {}

  /**
   * How long a placement may take.
   *
   * @param notice longest time until the running server looks at the switch again
   * @param startsWithin longest time it may take to start
   */
  public record Timing(Duration notice, Duration startsWithin) {}

  /** The same, asked without the web server before it. */
  public Placement directly() {
    Route straight = new Route(route.listener, route.contextPath, route.direct, route.direct);
    return new Placement(release, straight, switchPath, traces, timing);
  }

  /** Name of its application. */
  public String application() {
    return release.application;
  }

  /** Where people open it. */
  public String address() {
    String text = route.base.toString();
    return route.contextPath.isEmpty() ? text : text.substring(0, text.length() - 1);
  }
}

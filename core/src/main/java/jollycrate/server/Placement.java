package jollycrate.server;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;

/**
 * A release at a path on a listener of a server.
 *
 * @param version of the release, may be empty
 * @param digest SHA-256 of its artifact
 * @param listener name of the listener
 * @param contextPath empty for the root
 * @param switchPath the file that makes it live
 * @param traces paths that the server makes by itself for it
 * @param base its address, ending in a slash
 * @param direct the same without a web server before it
 * @param notice longest time until the running server looks at the switch again
 * @param startsWithin longest time it may take to start
 * @param packages of its own classes, to find it in stack traces
 */
public record Placement(
    String application,
    String version,
    String digest,
    String listener,
    String contextPath,
    Path switchPath,
    List<Path> traces,
    URI base,
    URI direct,
    Duration notice,
    Duration startsWithin,
    List<String> packages) {

  /** The same, asked without the web server before it. */
  public Placement directly() {
    return new Placement(
        application,
        version,
        digest,
        listener,
        contextPath,
        switchPath,
        traces,
        direct,
        direct,
        notice,
        startsWithin,
        packages);
  }

  /** Where people open it. */
  public String address() {
    String text = base.toString();
    return contextPath.isEmpty() ? text : text.substring(0, text.length() - 1);
  }
}

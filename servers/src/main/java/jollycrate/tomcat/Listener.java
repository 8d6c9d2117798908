package jollycrate.tomcat;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.regex.PatternSyntaxException;

/**
 * One of the two listeners of a server: an engine with the host that serves what it receives.
 *
 * @param label how records tell it, {@link jollycrate.server.Placement#MAIN}, ADMIN or the name of
 *     a virtual host
 * @param engine its name
 * @param descriptors folder of the context descriptors
 * @param applications folder of applications, in which it unpacks them too
 * @param live whether the running server notices what changes there
 * @param atStart whether it looks there when it starts
 * @param interval between two looks
 * @param ignored names of what it leaves alone in the folder of applications, a regular expression
 * @param realm that its own users come from, as it is written
 */
record Listener(
    String label,
    String engine,
    Path descriptors,
    Path applications,
    boolean live,
    boolean atStart,
    Duration interval,
    String ignored,
    Optional<String> realm) {
  /** Tomcat ignores a change younger than this (HostConfig's file modification resolution). */
  private static final Duration RESOLUTION = Duration.ofSeconds(1);

  /** A further host of the same engine, with folders of its own and as it looks by itself. */
  Listener further(String host) {
    return new Listener(
        host,
        engine,
        descriptors.resolveSibling(host),
        applications.resolveSibling("webapps-" + host),
        true,
        true,
        interval,
        "",
        realm);
  }

  /** Whether it leaves alone what stands by this name in the folder of applications. */
  boolean ignores(String name) {
    try {
      return name.matches(ignored);
    } catch (PatternSyntaxException wrong) {
      return false;
    }
  }

  /** Longest time until the running server has looked at a changed descriptor. */
  Duration notice() {
    return interval.multipliedBy(2).plus(RESOLUTION);
  }
}

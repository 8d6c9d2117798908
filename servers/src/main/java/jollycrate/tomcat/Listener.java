package jollycrate.tomcat;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;

/**
 * One of the two listeners of a server: an engine with the host that serves what it receives.
 *
 * @param label how records tell it, {@link #MAIN} or {@link #ADMIN}
 * @param engine its name
 * @param descriptors folder of the context descriptors
 * @param applications folder of applications, in which it unpacks them too
 * @param live whether the running server notices what changes there
 * @param atStart whether it looks there when it starts
 * @param notice longest time until it has looked at a changed descriptor
 * @param realm that its own users come from, as it is written
 */
record Listener(
    String label,
    String engine,
    Path descriptors,
    Path applications,
    boolean live,
    boolean atStart,
    Duration notice,
    Optional<String> realm) {
  static final String MAIN = "main";
  static final String ADMIN = "admin";
}

package jollycrate.host;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import java.util.function.Supplier;

/**
 * How another machine is reached.
 *
 * @param name what people call it here
 * @param ssh where {@code ssh} itself would go: an alias, {@code user@name}, {@code user@name:port}
 * @param config an SSH configuration file to go by in place of the user's own
 * @param sudo user to become there, without a password; empty: whoever logs in
 * @param keep for how long the connection stays for later commands; zero: not at all
 * @param password of the user who logs in; read only when the server wants one
 * @param keyPassword opens an encrypted key; read only when there is one
 */
public record Reach(
    String name,
    String ssh,
    Optional<Path> config,
    Optional<String> sudo,
    Duration keep,
    Optional<Supplier<String>> password,
    Optional<Supplier<String>> keyPassword) {}

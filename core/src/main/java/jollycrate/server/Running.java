package jollycrate.server;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.host.Fact;
import jollycrate.host.Identity;

/**
 * The process of a server.
 *
 * @param fingerprint of the launch it came from
 * @param command of that launch, without its token
 * @param output file that its standard output goes to; empty when it is none
 * @param ours whether we started it, or the unit that we put there
 */
public record Running(
    Identity identity,
    String fingerprint,
    List<String> command,
    Fact<Optional<Path>> output,
    boolean ours) {
  /** That file, when it is one and that can be told. */
  public Optional<Path> printsTo() {
    return output.orElse(Optional.empty());
  }
}

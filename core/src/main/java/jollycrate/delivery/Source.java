package jollycrate.delivery;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.foresee.Finding;
import jollycrate.journal.EarlierRelease;

/**
 * Where an artifact comes from.
 *
 * @param revision of the source it was made of; empty when it is not known
 * @param findings what was seen there
 * @param restored the release that it was delivered with before; empty for a new one
 */
public record Source(String revision, List<Finding> findings, Optional<EarlierRelease> restored) {
  /** Nothing is known of it. */
  public static final Source UNKNOWN = of("", List.of());

  /** Of a new artifact. */
  public static Source of(String revision, List<Finding> findings) {
    return new Source(revision, findings, Optional.empty());
  }

  /** Word for what is done with it. */
  String act() {
    return restored.isPresent() ? "rollback" : "deploy";
  }

  /** The same with more that was seen. */
  public Source with(List<Finding> more) {
    return new Source(revision, Stream.concat(findings.stream(), more.stream()).toList(), restored);
  }
}

package jollycrate.delivery;

import java.util.List;
import java.util.stream.Stream;
import jollycrate.foresee.Finding;

/**
 * Where an artifact comes from.
 *
 * @param revision of the source it was made of; empty when it is not known
 * @param findings what was seen there
 */
public record Source(String revision, List<Finding> findings) {
  /** Nothing is known of it. */
  public static final Source UNKNOWN = new Source("", List.of());

  /** The same with more that was seen. */
  public Source with(List<Finding> more) {
    return new Source(revision, Stream.concat(findings.stream(), more.stream()).toList());
  }
}

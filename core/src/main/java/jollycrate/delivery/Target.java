package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.check.CheckResult;
import jollycrate.journal.EarlierRelease;
import jollycrate.journal.Journal;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.step.StepList;

/** What a delivery is to reach. */
interface Target extends Tasks {
  /** Name of the application that it is about; empty when it is about the server itself. */
  String application();

  /** Paths that have to be looked at for it, besides what stands there. */
  List<Path> paths();

  /** The way there from what stands. */
  StepList steps(Stock stock);

  /** What the act is called. */
  String act();

  /** How a release takes its place, or what leaves it. */
  Swap swap(Stock stock);

  /** What is to stand afterwards; empty when something goes, or the server itself is changed. */
  default Optional<Placement> placement() {
    return Optional.empty();
  }

  /** What stood there before and may be gone afterwards. */
  default Optional<Placement> earlier(Stock stock) {
    return Optional.empty();
  }

  /** Why that does not run although its server does; empty when nothing speaks against it. */
  default Optional<String> ailed(Stock stock) {
    return Optional.empty();
  }

  /** What else was up, where the server itself is changed. */
  default List<Placement> others() {
    return List.of();
  }

  /** What is to be kept of it, so that it can be delivered again. */
  default Optional<EarlierRelease> release() {
    return Optional.empty();
  }

  /** Digest of the resolved description; empty where none is delivered. */
  default String described() {
    return release().map(EarlierRelease::description).orElse("");
  }

  /** Digests of what its release is made of there. */
  default List<String> digests() {
    return List.of();
  }

  /** JNDI names that it gives to a new release. */
  default List<String> dataSources() {
    return List.of();
  }

  /**
   * What we answer for once it is proven.
   *
   * @param found top-level names that stood in the server's folder before
   */
  Standing next(Standing standing, Journal journal, List<String> found);

  /** What it came to once it is kept. */
  DeliveryOutcome.Result kept(List<CheckResult> results);
}

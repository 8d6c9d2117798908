package jollycrate.delivery;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import jollycrate.check.CheckResult;
import jollycrate.journal.Journal;
import jollycrate.server.Overhaul;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.step.ServerSteps;
import jollycrate.step.StepList;
import jollycrate.watch.Site;

/**
 * A server that is to be another one itself, with the same applications on it.
 *
 * @param site as it is to be described
 * @param act what is done to it
 * @param ports that it was described with before
 * @param up placements that were up before
 * @param description the file that describes it, where that changes with it
 * @param beside the same where it is not on the server's machine
 * @param checks runs checks of an application that was up
 */
record ServerTarget(
    Site site,
    String act,
    Overhaul overhaul,
    List<Integer> ports,
    List<Placement> up,
    Optional<Piece.WholeFile> description,
    Optional<DescribedBeside> beside,
    Function<Placement, List<CheckResult>> checks,
    boolean runs)
    implements Target {

  @Override
  public String application() {
    return "";
  }

  @Override
  public List<Path> paths() {
    Stream<Path> put =
        Stream.concat(overhaul.files().stream(), description.stream()).map(Piece.WholeFile::path);
    return Stream.concat(put.flatMap(this::onTheWay), overhaul.gone().stream()).distinct().toList();
  }

  /** A file with its folders in the server's own. */
  private Stream<Path> onTheWay(Path file) {
    return Stream.iterate(
        file, path -> path.equals(file) || isBelow(path), path -> path.getParent());
  }

  private boolean isBelow(Path path) {
    Path folder = site.server().folder();
    return path.startsWith(folder) && !path.equals(folder);
  }

  @Override
  public StepList steps(Stock stock) {
    return new ServerSteps(
            stock,
            overhaul,
            site.kind().processes().launch(stock),
            ports,
            up.stream().map(site::addressed).toList(),
            description)
        .compute();
  }

  @Override
  public Swap swap(Stock stock) {
    return Swap.RESTART;
  }

  @Override
  public List<Placement> others() {
    return up;
  }

  @Override
  public List<CheckResult> check(Placement placement) {
    return checks.apply(placement);
  }

  /** The same applications, where they answer now. */
  @Override
  public Standing next(Standing standing, Journal journal, List<String> found) {
    Standing next = standing;
    for (Standing.Owner owner : standing.applications()) {
      next = next.with(owner.at(site.addressed(owner.placement())));
    }
    return next;
  }

  @Override
  public DeliveryOutcome.Result kept(List<CheckResult> results) {
    beside.ifPresent(DescribedBeside::write);
    return runs ? DeliveryOutcome.Result.CHANGED : DeliveryOutcome.Result.CHANGED_UNPROVEN;
  }
}

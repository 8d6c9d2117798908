package jollycrate.delivery;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.app.ContextPath;
import jollycrate.control.StartedOtherwise;
import jollycrate.foresee.Finding;
import jollycrate.server.Occupant;
import jollycrate.server.Stock;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.watch.Site;

/** Says whom else a restart interrupts, and what it changes about a process of somebody else. */
record Interruptions(Site site) {
  /** Nothing when the server goes on, or nobody else is on it. */
  List<Finding> look(Stock stock, StepList steps, String application) {
    boolean stops = steps.change().stream().anyMatch(Step.StopServer.class::isInstance);
    if (!stops) {
      return List.of();
    }
    List<Finding> findings = new ArrayList<>(otherwise(site, stock));
    if (site.traits().hosts()) {
      others(stock, application).ifPresent(findings::add);
    }
    return List.copyOf(findings);
  }

  /** What is otherwise once it was restarted; nothing of a process that was started as by us. */
  static List<Finding> otherwise(Site site, Stock stock) {
    boolean byUnit = site.server().steering().unit().isPresent();
    return stock
        .process()
        .found()
        .filter(running -> !running.ours() && !byUnit)
        .map(
            running ->
                new StartedOtherwise(
                        site.host(), site.server(), site.kind().processes().launch(stock), running)
                    .findings())
        .orElse(List.of());
  }

  private Optional<Finding> others(Stock stock, String application) {
    String others =
        site.kind().occupants(stock).stream()
            .filter(Occupant::served)
            .filter(occupant -> !isOf(stock, application, occupant))
            .map(occupant -> ContextPath.shown(occupant.contextPath()))
            .distinct()
            .sorted()
            .collect(Collectors.joining(", "));
    return others.isEmpty()
        ? Optional.empty()
        : Optional.of(
            Finding.note(
                site.server().name(),
                "its restart interrupts what "
                    + (application.isEmpty() ? "" : "else ")
                    + "runs there: "
                    + others));
  }

  private static boolean isOf(Stock stock, String application, Occupant occupant) {
    return stock
        .standing()
        .owner(application)
        .map(owner -> owner.placement().route())
        .filter(route -> route.listener().equals(occupant.listener()))
        .filter(route -> route.contextPath().equals(occupant.contextPath()))
        .isPresent();
  }
}

package jollycrate.delivery;

import java.util.List;
import java.util.stream.Collectors;
import jollycrate.app.ContextPath;
import jollycrate.foresee.Finding;
import jollycrate.server.Occupant;
import jollycrate.server.Stock;
import jollycrate.step.Step;
import jollycrate.step.StepList;
import jollycrate.watch.Site;

/** Says whom else a restart interrupts. */
record Interruptions(Site site) {
  /** Nothing when the server goes on, or nobody else is on it. */
  List<Finding> look(Stock stock, StepList steps, String application) {
    boolean stops = steps.change().stream().anyMatch(Step.StopServer.class::isInstance);
    if (!stops || !site.traits().hosts()) {
      return List.of();
    }
    String others =
        site.kind().occupants(stock).stream()
            .filter(Occupant::served)
            .filter(occupant -> !isOf(stock, application, occupant))
            .map(occupant -> ContextPath.shown(occupant.contextPath()))
            .distinct()
            .sorted()
            .collect(Collectors.joining(", "));
    return others.isEmpty()
        ? List.of()
        : List.of(
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

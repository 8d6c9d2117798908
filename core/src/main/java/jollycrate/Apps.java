package jollycrate;

import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;
import jollycrate.app.Application;
import jollycrate.app.Check;
import jollycrate.app.Descriptions;
import jollycrate.app.NotDescribedException;
import jollycrate.app.ServerEntry;
import jollycrate.build.Drivers;
import jollycrate.check.CheckResult;
import jollycrate.check.KeptAnswers;
import jollycrate.check.SideBySide;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.Rounds;
import jollycrate.delivery.StandingService;
import jollycrate.host.Time;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/**
 * What the commands do with an application that stands on a server. Its name may be left out for
 * the one that {@code jolly.toml} describes.
 */
public final class Apps {
  private final Means means;
  private final Descriptions descriptions;

  Apps(Means means) {
    this.means = means;
    this.descriptions = means.descriptions();
  }

  /**
   * Runs the checks against what stands on a server.
   *
   * @param atOnce how many of them at the same time
   */
  public DeliveryOutcome check(Optional<String> name, String serverName, int atOnce) {
    ServerEntry entry = descriptions.entry(serverName);
    return standing(entry).check(named(name, entry), atOnce);
  }

  /**
   * Makes the same checks on two servers, and compares what came.
   *
   * @param serverNames the two
   */
  public SideBySide compare(Optional<String> name, List<String> serverNames) {
    List<SideBySide.Side> sides = new ArrayList<>();
    for (String serverName : serverNames) {
      sides.add(side(name, descriptions.entry(serverName)));
    }
    List<Check> checks = named(name, descriptions.entry(serverNames.get(0))).checks();
    return SideBySide.of(checks, sides.get(0), sides.get(1));
  }

  private SideBySide.Side side(Optional<String> name, ServerEntry entry) {
    KeptAnswers answers = new KeptAnswers();
    Application application = named(name, entry);
    Site site = means.sites().site(entry).keeping(answers);
    Progress keeping =
        new Progress() {
          @Override
          public void checked(CheckResult result) {
            answers.endOf(result.name());
          }

          @Override
          public void waitingFor(String what) {
            means.progress().waitingFor(what);
          }
        };
    StandingService standing = new StandingService(site, keeping, means.interrupts());
    List<Check> once = application.checks().stream().map(Check::unmeasured).toList();
    DeliveryOutcome outcome = standing.check(application.checking(once), 1);
    String address = outcome.aim().place().address().replaceFirst("/?$", "/");
    return new SideBySide.Side(
        new SideBySide.Place(entry.name(), outcome.aim().release().name()),
        URI.create(address),
        outcome.checks(),
        answers);
  }

  /**
   * Makes those checks that change nothing again and again.
   *
   * @param every time between the beginnings of two rounds
   * @param again told of each round; whether another one is wanted
   */
  public void watch(
      Optional<String> name, String serverName, Duration every, Predicate<Rounds.Round> again) {
    ServerEntry entry = descriptions.entry(serverName);
    named(name, entry);
    new Rounds(every, means.interrupts(), Time.system())
        .run(() -> standing(entry).check(Rounds.harmless(named(name, entry)), 1), again);
  }

  /** Starts an application anew on a server that goes on running. */
  public DeliveryOutcome restart(Optional<String> name, String serverName) {
    ServerEntry entry = descriptions.entry(serverName);
    return standing(entry).restart(named(name, entry));
  }

  /** Stops an application on a server that goes on running. */
  public DeliveryOutcome stop(Optional<String> name, String serverName) {
    ServerEntry entry = descriptions.entry(serverName);
    return standing(entry).stop(nameOf(name, entry));
  }

  /** Starts it again. */
  public DeliveryOutcome start(Optional<String> name, String serverName) {
    ServerEntry entry = descriptions.entry(serverName);
    return standing(entry).start(named(name, entry));
  }

  /** The name that was told, else that of the application that is described here. */
  String nameOf(Optional<String> told, ServerEntry entry) {
    mustBeTold(told, entry);
    return told.orElseGet(() -> descriptions.application(entry).name());
  }

  private void mustBeTold(Optional<String> name, ServerEntry entry) {
    if (name.isEmpty() && !descriptions.isDescribed()) {
      throw new NotDescribedException(
          "Cannot tell which application is meant: no jolly.toml stands in '"
              + means.setting().folder()
              + "' or above. Name it; 'jolly apps --on "
              + entry.name()
              + "' lists what stands there");
    }
  }

  private Application named(Optional<String> name, ServerEntry entry) {
    mustBeTold(name, entry);
    Application application =
        name.filter(told -> !isDescribedHere(told))
            .map(Application::undescribed)
            .orElseGet(() -> descriptions.application(entry));
    return application.data().isEmpty()
        ? application
        : Drivers.found(means.host(), means.setting(), application, means.asking());
  }

  private boolean isDescribedHere(String name) {
    return descriptions.isDescribed()
        && descriptions.application(Optional.empty()).name().equals(name);
  }

  private StandingService standing(ServerEntry entry) {
    return new StandingService(means.sites().site(entry), means.progress(), means.interrupts());
  }
}

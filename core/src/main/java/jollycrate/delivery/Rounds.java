package jollycrate.delivery;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.function.Supplier;
import jollycrate.app.Application;
import jollycrate.app.Check;
import jollycrate.app.ProblemsException;
import jollycrate.check.CheckResult;
import jollycrate.host.HostException;
import jollycrate.host.Time;
import jollycrate.secret.SecretException;
import jollycrate.stock.RecordsException;
import jollycrate.watch.Interrupts;

/**
 * Checks that are made again and again, until nobody wants another round. What hinders a round is
 * told of it, and the next one tries again.
 */
public final class Rounds {
  private static final Duration LOOK_AGAIN = Duration.ofMillis(100);

  /** What may be otherwise in the next round: the machine, what stands there, a file in work. */
  private static final Set<Class<? extends RuntimeException>> PASSING =
      Set.of(
          HostException.class,
          NotDeliveredException.class,
          RecordsException.class,
          ProblemsException.class,
          SecretException.class);

  private final Duration every;
  private final Interrupts interrupts;
  private final Time time;

  /**
   * @param every time between the beginnings of two rounds, unless one takes longer
   */
  public Rounds(Duration every, Interrupts interrupts, Time time) {
    this.every = every;
    this.interrupts = interrupts;
    this.time = time;
  }

  /**
   * What came of one round.
   *
   * @param number from 1
   * @param release what stands there, with its version; empty when that could not be seen
   * @param trouble why no check could be made; empty when they were
   */
  public record Round(
      int number, Instant at, String release, List<CheckResult> checks, String trouble) {
    /** Whether everything came as expected. */
    public boolean passed() {
      return trouble.isEmpty() && checks.stream().allMatch(CheckResult::passed);
    }
  }

  /**
   * The application with those of its checks that may be made again and again; a data source is not
   * asked, as that takes a Java of its own each time.
   */
  public static Application harmless(Application application) {
    return application
        .askingNoData()
        .checking(
            application.checks().stream().filter(Check::isSafe).map(Check::unmeasured).toList());
  }

  /**
   * Begins.
   *
   * @param again told of each round; whether another one is wanted
   */
  public void run(Supplier<DeliveryOutcome> checks, Predicate<Round> again) {
    int number = 0;
    boolean wanted = true;
    while (wanted && !interrupts.isAsked()) {
      Instant next = time.now().plus(every);
      Round round = round(++number, checks);
      wanted = !interrupts.isAsked() && again.test(round);
      if (wanted) {
        time.until(interrupts::isAsked, Duration.between(time.now(), next), LOOK_AGAIN, () -> {});
      }
    }
  }

  private Round round(int number, Supplier<DeliveryOutcome> checks) {
    Instant at = time.now();
    try {
      DeliveryOutcome outcome = checks.get();
      return new Round(number, at, outcome.aim().release().name(), outcome.checks(), "");
    } catch (RuntimeException e) {
      if (PASSING.stream().noneMatch(passing -> passing.isInstance(e))) {
        throw e;
      }
      return new Round(number, at, "", List.of(), e.getMessage());
    }
  }
}

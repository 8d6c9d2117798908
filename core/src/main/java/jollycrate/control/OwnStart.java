package jollycrate.control;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import jollycrate.host.Account;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.host.Ran;
import jollycrate.server.Cause;
import jollycrate.server.Running;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;

/**
 * Starts a server by a command of its own, which leaves the server running and ends.
 *
 * @param command program and arguments, from the server's folder on
 */
record OwnStart(Site site, List<String> command) {
  static final Duration ENDS_WITHIN = Duration.ofSeconds(60);
  private static final Duration APPEARS_WITHIN = Duration.ofSeconds(20);
  private static final Duration LOOK_AGAIN = Duration.ofMillis(50);
  private static final int MOST_LINES = 5;

  /** The shell stays until the command has ended, so that its token tells that it is under way. */
  private static final String TO_ITS_END = "\"$@\"; exit $?";

  /** Runs it in a session of its own, and finds the server by what it is. */
  Identity run(Launch launch, String token) {
    List<String> words = new ArrayList<>();
    boolean byUnit = site.server().steering().unit().isPresent();
    Optional<Account> account =
        byUnit ? Optional.empty() : site.host().processes().accountIn(launch.owned());
    account.ifPresent(found -> words.addAll(found.become()));
    words.addAll(List.of("setsid", "-w", "/bin/sh", "-c", TO_ITS_END, launch.named(token)));
    site.server().steering().program(launch.workingFolder()).ifPresent(words::add);
    words.addAll(command.subList(1, command.size()));
    Ran ran =
        site.host()
            .processes()
            .run(
                words,
                launch.workingFolder(),
                byUnit ? site.host().environment() : launch.environmentOf(account),
                "",
                ENDS_WITHIN);
    if (ran.tookTooLong()) {
      String limit = ENDS_WITHIN.toSeconds() + " s";
      throw failed("its start command did not end within " + limit + ", as it has to", ran);
    }
    if (ran.exit() != 0) {
      throw failed("its start command ended with " + ran.exit(), ran);
    }
    AtomicReference<Optional<Running>> found = new AtomicReference<>(Optional.empty());
    site.time()
        .until(
            () -> {
              found.set(site.stockTaker().startedBySomebody().found());
              return found.get().isPresent();
            },
            APPEARS_WITHIN,
            LOOK_AGAIN,
            () -> {});
    return found
        .get()
        .map(Running::identity)
        .orElseThrow(() -> failed("its start command ended, and no process of it runs", ran));
  }

  private StepFailed failed(String what, Ran ran) {
    return new StepFailed(
        new Cause(
            what,
            String.join(" ", command),
            ran.lastLines(MOST_LINES),
            "Run it by hand in " + site.server().folder() + ", and fix 'start' in servers.toml",
            -1));
  }
}

package jollycrate.delivery;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import jollycrate.app.DataSource;
import jollycrate.host.Fact;
import jollycrate.host.HostException;
import jollycrate.host.Program;
import jollycrate.json.Json;
import jollycrate.script.ScriptRun;
import jollycrate.script.Undo;
import jollycrate.secret.SecretException;
import jollycrate.stock.JdbcProbe;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** Takes scripts back, by what a delivery kept before it applied them. */
final class ScriptUndoing {
  private static final int MOST_BYTES = 64 << 20;

  private static final Duration LOOK_AGAIN = Duration.ofMillis(100);

  private ScriptUndoing() {}

  /**
   * Takes one back; the database itself says whether it was applied.
   *
   * @param kept holds what undoes it; nothing stands there when that was not written
   * @return what is to be told; empty when nothing of it is left
   */
  static Optional<String> undo(Site site, Progress progress, Path kept) {
    return site.files()
        .wholeIfThere(kept, MOST_BYTES)
        .flatMap(
            bytes -> {
              Optional<Undo> undo = Json.read(bytes, Undo.class);
              undo.ifPresent(known -> awaitEnd(site, progress, known));
              return undo.isPresent()
                  ? undo(site, undo.get())
                  : Optional.of(
                      "a script may have been applied, and was not undone: '"
                          + kept
                          + "' cannot be read");
            });
  }

  /** One that was begun goes on when whoever began it was killed. */
  private static void awaitEnd(Site site, Progress progress, Undo undo) {
    String what = "'" + undo.script() + "'";
    boolean ended =
        site.time()
            .until(
                () -> underWay(site, what).isEmpty(),
                undo.within(),
                LOOK_AGAIN,
                () -> progress.waitingFor(what + " to end, which was begun before"));
    if (!ended) {
      throw new HostException(
          "Cannot undo "
              + what
              + ": process "
              + underWay(site, what).get(0).identity().pid()
              + " on "
              + site.host().name()
              + " still applies it. Wait until it has ended, or end it; then 'jolly recover' goes on");
    }
  }

  private static List<Program> underWay(Site site, String what) {
    Fact<List<Program>> found = ScriptRun.underWay(site.host(), site.server());
    found
        .unread()
        .ifPresent(
            why -> {
              throw new HostException(
                  "Cannot undo " + what + ": whether it is still applied cannot be told: " + why);
            });
    return found.orElse(List.of());
  }

  private static Optional<String> undo(Site site, Undo undo) {
    DataSource source = undo.source();
    try {
      String password = source.password().map(site.secrets()::resolve).orElse("");
      JdbcProbe probe = new JdbcProbe(site.host(), site.server(), undo.from());
      return new ScriptRun(
              probe,
              new JdbcProbe.LogIn(source, password),
              undo.application(),
              site.time(),
              undo.by())
          .undo(undo);
    } catch (SecretException e) {
      return Optional.of(
          "'"
              + undo.script()
              + "' of "
              + source.jndiName()
              + " may have been applied, and was not undone: "
              + e.getMessage());
    }
  }
}

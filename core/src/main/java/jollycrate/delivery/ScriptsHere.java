package jollycrate.delivery;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.foresee.Finding;
import jollycrate.foresee.ScriptRule;
import jollycrate.host.Fact;
import jollycrate.script.HalfApplied;
import jollycrate.script.Prepared;
import jollycrate.script.ScriptRun;
import jollycrate.script.ScriptWork;
import jollycrate.script.Scripts;
import jollycrate.script.Undo;
import jollycrate.server.Cause;
import jollycrate.step.Step;
import jollycrate.stock.JdbcProbe;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;

/** What one delivery does to databases before the switch. */
final class ScriptsHere {
  private final Site site;
  private final String application;
  private final Map<String, String> passwords;
  private final HalfApplied choice;
  private final String by;
  private final JdbcProbe probe;
  private final List<Scripts> all;
  private final List<Step.ApplyScript> done = new ArrayList<>();

  /**
   * Those of an application; their databases are asked what was applied before.
   *
   * @param passwords of data sources, by their JNDI names
   */
  ScriptsHere(
      Site site, Application application, Map<String, String> passwords, HalfApplied choice) {
    this.site = site;
    this.application = application.name();
    this.passwords = passwords;
    this.choice = choice;
    this.by = ScriptRun.by(site.by(), site.server());
    this.probe = new Looking(site).probe(application);
    this.all =
        application.dataSources().stream()
            .filter(source -> !source.scripts().isEmpty())
            .map(source -> Scripts.of(source, run(source)))
            .toList();
  }

  private ScriptRun run(DataSource source) {
    String password = passwords.getOrDefault(source.jndiName(), "");
    return new ScriptRun(
        probe, new JdbcProbe.LogIn(source, password), application, site.time(), by);
  }

  List<Finding> findings() {
    return all.stream().flatMap(scripts -> ScriptRule.look(scripts, choice).stream()).toList();
  }

  /** What is left to be done. */
  List<Step.ApplyScript> steps() {
    return all.stream()
        .flatMap(scripts -> scripts.pending(choice).stream().map(script -> step(scripts, script)))
        .filter(step -> !done.contains(step))
        .toList();
  }

  private Step.ApplyScript step(Scripts scripts, Prepared script) {
    boolean counts = scripts.stage(script).isHalf() && choice == HalfApplied.DONE;
    return new Step.ApplyScript(
        script.name(),
        scripts.source().jndiName(),
        script.digest(),
        scripts.stage(script),
        counts,
        counts || script.undo().map(Optional::isPresent).orElse(false));
  }

  private Prepared prepared(Step.ApplyScript step) {
    return all.stream()
        .filter(scripts -> scripts.source().jndiName().equals(step.source()))
        .flatMap(scripts -> scripts.described().stream())
        .filter(script -> script.name().equals(step.script()))
        .findFirst()
        .orElseThrow();
  }

  /**
   * Applies one.
   *
   * @throws StepFailed when that does not come about
   */
  void apply(Step.ApplyScript step) {
    Prepared script = prepared(step);
    ScriptRun run = run(script.source());
    Optional<Cause> failed =
        step.counts() ? run.count(script, step.noted()) : apply(run, script, step);
    failed.ifPresent(
        cause -> {
          throw new StepFailed(cause);
        });
    done.add(step);
  }

  private static Optional<Cause> apply(ScriptRun run, Prepared script, Step.ApplyScript step) {
    return script.work() instanceof Fact.Known<ScriptWork> known
        ? run.apply(script, known.value(), step.noted())
        : Optional.of(Cause.of(script.work().unread().orElse(""), "Fix the file"));
  }

  /** What takes one back. */
  Undo undo(Step.ApplyScript step) {
    Prepared script = prepared(step);
    return new Undo(
        script.source(),
        probe.from(),
        application,
        script.name(),
        step.digest(),
        step.noted(),
        step.counts(),
        by,
        script.undo().orElse(Optional.empty()),
        script.script().within());
  }
}

package jollycrate.delivery;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.json.Json;
import jollycrate.script.Undo;
import jollycrate.server.Cause;
import jollycrate.step.State;
import jollycrate.step.Step;
import jollycrate.watch.Site;
import jollycrate.watch.StepFailed;

/** What is kept, as long as a delivery goes on, to take its steps back by. */
record Backups(Site site) {

  /** Where what takes a step back is kept. */
  static Path place(Site site, int number) {
    return site.records().backups().resolve("" + number);
  }

  /** Keeps what takes a step back; nothing where nothing is needed for that. */
  void of(int number, Step step, Tasks tasks) {
    if (step instanceof Step.ApplyScript script) {
      tasks.undo(script).ifPresent(undo -> keep(number, undo));
    }
    step.file()
        .ifPresent(file -> file.before().ifPresent(before -> copy(number, file.path(), before)));
  }

  private void copy(int number, Path path, State before) {
    makeFolder();
    mustBe(path, Optional.of(before));
    Path backup = place(site, number);
    site.files().copy(path, backup);
    mustBe(backup, Optional.of(before));
  }

  private void keep(int number, Undo undo) {
    makeFolder();
    Access access = site.files().facts(site.server().folder()).access().with("rw-------");
    site.files().put(place(site, number), Content.of(Json.line(undo)), access);
  }

  private void makeFolder() {
    HostFiles files = site.files();
    Path folder = site.records().backups();
    if (!files.facts(folder).exists()) {
      files.makeFolder(folder, files.facts(site.server().folder()).access().with("rwx------"));
    }
  }

  /**
   * Nothing while a file is as it was when the steps were computed.
   *
   * @throws StepFailed when somebody changed it since
   */
  void mustBe(Path path, Optional<State> before) {
    if (!State.of(site.files(), path).equals(before)) {
      throw new StepFailed(
          Cause.of(
              "'" + site.server().shown(path) + "' was changed by somebody meanwhile",
              "Find out who writes there, then deliver again"));
    }
  }
}

package jollycrate;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.Function;
import jollycrate.app.Application;
import jollycrate.app.Descriptions;
import jollycrate.app.NotDescribedException;
import jollycrate.app.PackChoice;
import jollycrate.app.PackDescription;
import jollycrate.app.ServerEntry;
import jollycrate.check.CheckResult;
import jollycrate.delivery.StandingService;
import jollycrate.draft.CheckDraft;
import jollycrate.draft.Draft;
import jollycrate.draft.Drafting;
import jollycrate.file.IoReason;
import jollycrate.file.Trees;

/** First descriptions, and checks, from what stands there. */
public final class Drafts {
  private final Means means;
  private final BiConsumer<PackDescription, Path> packing;

  Drafts(Means means, BiConsumer<PackDescription, Path> packing) {
    this.means = means;
    this.packing = packing;
  }

  /** Makes a first description of the project in the folder where the tool works. */
  public Draft project() {
    try {
      return Drafting.of(means.setting().folder());
    } catch (IOException e) {
      throw new NotDescribedException("Cannot draft a description: " + IoReason.of(e));
    }
  }

  /**
   * Adds checks to {@code jolly.toml} that are not there yet.
   *
   * @param server on which they are tried first; empty: they are not
   */
  public CheckDraft.Added checks(
      Optional<Path> openApi, Optional<Path> har, Optional<String> server) {
    Descriptions descriptions = means.descriptions();
    if (!descriptions.isDescribed()) {
      throw new NotDescribedException(
          "Cannot add checks: no jolly.toml stands in '"
              + descriptions.folder()
              + "' or above. 'jolly draft' writes one, 'jolly draft --checks' adds checks to it");
    }
    Application application = Descriptions.atItsName(descriptions.application(Optional.empty()));
    CheckDraft draft =
        new CheckDraft(application.file().orElseThrow(), application, descriptions.values());
    Path folder = Trees.temporary();
    try {
      Optional<Path> artifact = application.making().artifact();
      if (!application.making().packs().isEmpty()) {
        PackDescription chosen = PackChoice.chosen(application, Optional.empty());
        Path file = folder.resolve(chosen.target().getFileName());
        packing.accept(chosen, file);
        artifact = Optional.of(file);
      }
      return draft.add(new CheckDraft.Sources(artifact, openApi, har), server.map(this::trying));
    } finally {
      Trees.discard(folder);
    }
  }

  private Function<Application, List<CheckResult>> trying(String server) {
    ServerEntry entry = means.descriptions().entry(server);
    StandingService standing =
        new StandingService(means.sites().site(entry), means.progress(), means.interrupts());
    return application -> standing.check(application, 1).checks();
  }
}

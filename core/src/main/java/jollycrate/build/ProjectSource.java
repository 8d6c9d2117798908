package jollycrate.build;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.delivery.Source;
import jollycrate.foresee.Finding;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.host.Ran;
import jollycrate.secret.VariablesFile;

/**
 * What the version control of a project tells.
 *
 * @param folder of {@code jolly.toml}
 */
public record ProjectSource(Host host, Path folder) {
  private static final Duration LIMIT = Duration.ofSeconds(5);

  /** Where an application comes from; nothing is known of one that no file describes. */
  public static Source of(Host host, Application application) {
    return application
        .file()
        .map(file -> new ProjectSource(host, file.toAbsolutePath().getParent()).source())
        .orElse(Source.UNKNOWN);
  }

  private Source source() {
    String revision = told("rev-parse", "HEAD").orElse("");
    if (revision.isEmpty()) {
      return Source.UNKNOWN;
    }
    boolean changed =
        told("status", "--porcelain", "--untracked-files=no", "--", ".")
            .filter(String::isEmpty)
            .isEmpty();
    return Source.of(changed ? revision + "+" : revision, variablesFile());
  }

  private List<Finding> variablesFile() {
    boolean taken =
        VariablesFile.isIn(folder) && told("check-ignore", "-q", VariablesFile.NAME).isEmpty();
    return taken
        ? List.of(
            Finding.warn(
                VariablesFile.NAME,
                "version control would take this file, in which secrets stand",
                folder.resolve(VariablesFile.NAME).toString(),
                "Add the line " + VariablesFile.NAME + " to .gitignore"))
        : List.of();
  }

  /** What git answers; empty when it says no, or is not there. */
  private Optional<String> told(String... arguments) {
    List<String> command = new ArrayList<>(List.of("git"));
    command.addAll(List.of(arguments));
    try {
      Ran ran = host.processes().run(command, folder, System.getenv(), "", LIMIT);
      return ran.exit() == 0 ? Optional.of(ran.output().strip()) : Optional.empty();
    } catch (HostException noGit) {
      return Optional.empty();
    }
  }
}

package jollycrate.site;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.Context;
import jollycrate.app.ContextPath;
import jollycrate.app.NotDescribedException;
import jollycrate.artifact.Artifact;
import jollycrate.watch.Site;

/**
 * A finished file to be delivered.
 *
 * @param called its name without a version, where that is known; empty: the file's own name
 * @param undescribed whether a {@code jolly.toml} that stands there is not asked
 * @param path context path of a file that nothing describes; empty: by the server's own rule
 * @param startsWithin longest time that such a file may take to start; empty: what is usual
 */
public record FinishedArtifact(
    Path file,
    Optional<String> called,
    boolean undescribed,
    Optional<String> path,
    Optional<Duration> startsWithin) {

  /** The application as a file describes it, of which this one is delivered. */
  public Application asDescribed(Application read, Artifact artifact) {
    if (path.isPresent() || startsWithin.isPresent()) {
      throw new NotDescribedException(
          "Cannot deliver '"
              + file
              + "' with a path or a time of its own: "
              + read.file().orElseThrow()
              + " describes it. Write them there under [app], or add --undescribed");
    }
    Optional<String> version = Optional.of(artifact.version()).filter(told -> !told.isEmpty());
    return read.delivering(file, version.or(read::version));
  }

  /** The application that nothing describes but this file. */
  public Application byItself(Artifact artifact, Site site) {
    path.map(ContextPath::fault)
        .filter(fault -> !fault.isEmpty())
        .ifPresent(
            fault -> {
              throw new NotDescribedException(
                  "Cannot use '"
                      + path.get()
                      + "' as a context path: "
                      + fault
                      + ". Write it like /spokes, or / for the root");
            });
    Optional<String> at = path.or(() -> called.map(name -> "/" + name)).map(ContextPath::normal);
    return Application.of(
        file.toAbsolutePath(),
        nameOf(artifact, at, site),
        at,
        startsWithin.orElse(Context.STARTS_WITHIN));
  }

  /**
   * The name of an application that only its file tells: the file's own, unless another release of
   * the same title stands at the very path that is asked for, which this one then replaces.
   */
  private String nameOf(Artifact artifact, Optional<String> path, Site site) {
    String title = named(artifact.name());
    String fileName = artifact.file().getFileName().toString().replaceFirst("\\.[^.]*$", "");
    if (called.isPresent()) {
      return called.get();
    }
    if (path.isEmpty()) {
      return named(fileName);
    }
    Optional<String> stands =
        site.stockTaker()
            .standing()
            .owner(title)
            .map(owner -> owner.placement().route().contextPath());
    boolean replaces = stands.isEmpty() || stands.equals(path);
    return replaces ? title : named(fileName);
  }

  private static String named(String text) {
    return text.replaceFirst("##.*", "").replaceAll("[^A-Za-z0-9._-]", "-");
  }
}

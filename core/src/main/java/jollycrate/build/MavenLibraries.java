package jollycrate.build;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import jollycrate.app.MavenCoordinates;
import jollycrate.file.Digests;
import jollycrate.host.Host;
import jollycrate.maven.MavenProject;
import jollycrate.maven.Repositories;

/**
 * Libraries of the Maven project in a folder. Answers are kept until a {@code pom.xml} or a
 * settings file changes.
 */
final class MavenLibraries {
  private static final String POM = "pom.xml";

  private final Host host;
  private final Path folder;
  private final Path kept;
  private final Asking asking;

  /**
   * @param folder of the project
   * @param data where this user's own notes stand
   */
  MavenLibraries(Host host, Path folder, Path data, Asking asking) {
    this.host = host;
    this.folder = folder;
    this.kept = data.resolve("libraries");
    this.asking = asking;
  }

  /** Those that it needs at run time; empty when this is no Maven project. */
  Optional<List<Path>> ofRunTime() {
    if (!isProject()) {
      return Optional.empty();
    }
    return Optional.of(
        files(
            "run-time",
            () -> {
              Repositories repositories = asking.repositories(folder);
              return repositories.needMaven()
                  ? listed().ofRunTime()
                  : new MavenProject(repositories, folder.resolve(POM)).ofRunTime();
            }));
  }

  /** One of whatever scope; empty when it is none of them. */
  Optional<Path> library(MavenCoordinates named) {
    if (!isProject()) {
      return Optional.empty();
    }
    return files(
            named.toString().replace(':', '-'),
            () -> {
              Repositories repositories = asking.repositories(folder);
              Optional<Path> found =
                  repositories.needMaven()
                      ? listed().library(named)
                      : new MavenProject(repositories, folder.resolve(POM)).library(named);
              return found.stream().toList();
            })
        .stream()
        .findFirst();
  }

  private boolean isProject() {
    return Files.isRegularFile(folder.resolve(POM));
  }

  private List<Path> files(String question, Supplier<List<Path>> asked) {
    Path answer = answer(question);
    try {
      if (Files.isRegularFile(answer)) {
        List<Path> files = Files.readString(answer).lines().map(Path::of).toList();
        if (!files.isEmpty() && files.stream().allMatch(Files::isRegularFile)) {
          return files;
        }
      }
      List<Path> files = asked.get();
      keep(answer, files.stream().map(Path::toString).collect(Collectors.joining("\n")));
      return files;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private void keep(Path answer, String text) throws IOException {
    Files.createDirectories(kept);
    Path fresh = Files.createTempFile(kept, "fresh", ".txt");
    Files.writeString(fresh, text);
    Files.move(fresh, answer, StandardCopyOption.REPLACE_EXISTING);
  }

  /** What Maven itself answers, which it is asked once. */
  private ListedByMaven listed() {
    Path answer = answer("listed");
    try {
      if (!Files.isRegularFile(answer)) {
        Files.createDirectories(kept);
        Path fresh = Files.createTempFile(kept, "fresh", ".txt");
        String maven = Files.isExecutable(folder.resolve("mvnw")) ? "./mvnw" : "mvn";
        new ProjectCommand(host, folder, kept.resolve("failed.log"), asking.doing())
            .run(
                ListedByMaven.command(maven, fresh),
                "Cannot find the libraries of the Maven project");
        Files.move(fresh, answer, StandardCopyOption.REPLACE_EXISTING);
      }
      return new ListedByMaven(Files.readString(answer));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private Path answer(String question) {
    StringBuilder all = new StringBuilder(Repositories.setup(folder));
    for (Path at = folder; at != null; at = at.getParent()) {
      try {
        all.append(at).append('\n').append(Files.readString(at.resolve(POM))).append('\n');
      } catch (NoSuchFileException none) {
        break;
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    return kept.resolve(
        Digests.of(all.toString().getBytes(StandardCharsets.UTF_8)) + "-" + question);
  }
}

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
import java.util.function.Function;
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

  /** Of a build, which may set properties that versions and classifiers are made of. */
  private static final String EXTENSION = "<extension>";

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
    return Optional.of(files("run-time", MavenProject::ofRunTime, ListedByMaven::ofRunTime));
  }

  /** One of whatever scope; empty when it is none of them. */
  Optional<Path> library(MavenCoordinates named) {
    if (!isProject()) {
      return Optional.empty();
    }
    return files(
            named.toString().replace(':', '-'),
            project -> project.library(named).stream().toList(),
            listed -> listed.library(named).stream().toList())
        .stream()
        .findFirst();
  }

  private boolean isProject() {
    return Files.isRegularFile(folder.resolve(POM));
  }

  /** Files by the project's model, or by what Maven lists where only Maven knows them. */
  private List<Path> files(
      String question,
      Function<MavenProject, List<Path>> ofModel,
      Function<ListedByMaven, List<Path>> ofMaven) {
    Path answer = answer(question);
    try {
      if (Files.isRegularFile(answer)) {
        List<Path> files = Files.readString(answer).lines().map(Path::of).toList();
        if (!files.isEmpty() && files.stream().allMatch(Files::isRegularFile)) {
          return files;
        }
      }
      Repositories repositories = asking.repositories(folder);
      Path pom = folder.resolve(POM);
      List<Path> files =
          repositories.needMaven() || poms().contains(EXTENSION)
              ? ofMaven.apply(listed())
              : ofModel.apply(new MavenProject(repositories, pom));
      String lines = files.stream().map(Path::toString).collect(Collectors.joining("\n"));
      keep(answer, fresh -> Files.writeString(fresh, lines));
      return files;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Something that is written into a file. */
  private interface Writing {
    void into(Path file) throws IOException;
  }

  private void keep(Path answer, Writing writing) throws IOException {
    Files.createDirectories(kept);
    Path fresh = Files.createTempFile(kept, "fresh", ".txt");
    try {
      writing.into(fresh);
      Files.move(fresh, answer, StandardCopyOption.REPLACE_EXISTING);
    } finally {
      Files.deleteIfExists(fresh);
    }
  }

  /** What Maven itself answers, which it is asked once. */
  private ListedByMaven listed() throws IOException {
    Path answer = answer("listed");
    if (!Files.isRegularFile(answer)) {
      String maven = Files.isExecutable(folder.resolve("mvnw")) ? "./mvnw" : "mvn";
      ProjectCommand command =
          new ProjectCommand(host, folder, kept.resolve("failed.log"), asking.doing());
      keep(
          answer,
          fresh ->
              command.run(
                  ListedByMaven.command(maven, fresh),
                  "Cannot find the libraries of the Maven project"));
    }
    return new ListedByMaven(Files.readString(answer));
  }

  private Path answer(String question) {
    String all = Repositories.setup(folder) + poms();
    return kept.resolve(Digests.of(all.getBytes(StandardCharsets.UTF_8)) + "-" + question);
  }

  /** The project's file and those of the folders around it, each with its place. */
  private String poms() {
    StringBuilder all = new StringBuilder();
    for (Path at = folder; at != null; at = at.getParent()) {
      try {
        all.append(at).append('\n').append(Files.readString(at.resolve(POM))).append('\n');
      } catch (NoSuchFileException none) {
        break;
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    return all.toString();
  }
}

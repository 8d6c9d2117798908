package jollycrate.build;

import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import jollycrate.file.Digests;
import jollycrate.host.Host;

/** Libraries of a Maven project, as its own Maven resolves them. */
final class MavenLibraries {
  private final Host host;
  private final Path folder;
  private final Path kept;
  private final Consumer<String> doing;

  /**
   * @param folder of the project
   * @param data where this user's own notes stand
   * @param doing is told what runs
   */
  MavenLibraries(Host host, Path folder, Path data, Consumer<String> doing) {
    this.host = host;
    this.folder = folder;
    this.kept = data.resolve("classpaths");
    this.doing = doing;
  }

  /** Those that it needs at run time; empty when this is no Maven project. */
  Optional<List<Path>> ofRunTime() {
    return ofScope("runtime");
  }

  /** Those of tests and those that a server provides too; empty when this is no Maven project. */
  Optional<List<Path>> ofEveryScope() {
    return ofScope("test");
  }

  /** The answer is kept until a {@code pom.xml} it depends on changes. */
  private Optional<List<Path>> ofScope(String scope) {
    if (!Files.isRegularFile(folder.resolve("pom.xml"))) {
      return Optional.empty();
    }
    try {
      Path answer = kept.resolve(projectDigest() + "-" + scope);
      if (Files.isRegularFile(answer)) {
        List<Path> files = paths(Files.readString(answer));
        if (files.stream().allMatch(Files::isRegularFile)) {
          return Optional.of(files);
        }
      }
      Files.createDirectories(kept);
      Path fresh = Files.createTempFile(kept, "fresh", ".txt");
      try {
        resolve(scope, fresh);
        Files.move(fresh, answer, StandardCopyOption.REPLACE_EXISTING);
      } finally {
        Files.deleteIfExists(fresh);
      }
      return Optional.of(paths(Files.readString(answer)));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private void resolve(String scope, Path into) {
    boolean wrapped = Files.isExecutable(folder.resolve("mvnw"));
    new ProjectCommand(host, folder, kept.resolve("failed.log"), doing)
        .run(
            List.of(
                wrapped ? "./mvnw" : "mvn",
                "-B",
                "-q",
                "dependency:build-classpath",
                "-DincludeScope=" + scope,
                "-Dmdep.outputFile=" + into),
            "Cannot find the libraries of the Maven project");
  }

  private String projectDigest() throws IOException {
    StringBuilder poms = new StringBuilder();
    for (Path at = folder; at != null; at = at.getParent()) {
      try {
        String pom = Files.readString(at.resolve("pom.xml"));
        poms.append(at).append('\n').append(pom).append('\n');
      } catch (NoSuchFileException none) {
        break;
      }
    }
    return Digests.of(poms.toString().getBytes(StandardCharsets.UTF_8));
  }

  private static List<Path> paths(String classPath) {
    return Arrays.stream(classPath.strip().split(File.pathSeparator))
        .filter(text -> !text.isEmpty())
        .map(Path::of)
        .toList();
  }
}

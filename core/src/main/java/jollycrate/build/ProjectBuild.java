package jollycrate.build;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import jollycrate.app.Build;
import jollycrate.file.Digests;
import jollycrate.host.Host;

/** Builds a project by its own command when its results are older than its sources. */
final class ProjectBuild {
  private static final String RUNNING = "running";
  private static final String FAILED = "failed";
  private static final FileTime NEVER = FileTime.fromMillis(0);

  private final Host host;
  private final Path folder;
  private final Path data;
  private final Consumer<String> doing;

  /**
   * @param folder of {@code jolly.toml}
   * @param data where this user's own notes stand
   * @param doing is told what runs
   */
  ProjectBuild(Host host, Path folder, Path data, Consumer<String> doing) {
    this.host = host;
    this.folder = folder;
    this.data = data;
    this.doing = doing;
  }

  /**
   * Builds when it is wanted.
   *
   * @throws BuildException with everything the command printed when it fails; also when nothing may
   *     be built although the last build left its results half done
   */
  void run(Build build, BuildMode mode) {
    if (mode == BuildMode.NEVER) {
      if (isHalfDone(build)) {
        throw new BuildException(
            "Cannot use what stands in "
                + build.makes()
                + ": the last build failed or was cut off, and nothing was built since. Build the"
                + " project, or leave out --no-build",
            "");
      }
    } else if (mode == BuildMode.ALWAYS || isStale(build)) {
      FileTime started = FileTime.fromMillis(System.currentTimeMillis());
      note(unfinished(), RUNNING, started);
      try {
        new ProjectCommand(host, folder, log(), doing).run(build.run(), "Cannot build");
      } catch (BuildException e) {
        note(unfinished(), FAILED, FileTime.fromMillis(System.currentTimeMillis()));
        throw e;
      }
      note(stamp(), folder.toString(), started);
      forget(unfinished());
    }
  }

  /** Results of a build that failed count only when somebody has built by himself since. */
  private boolean isHalfDone(Build build) {
    if (Files.notExists(unfinished())) {
      return false;
    }
    try {
      return !Files.readString(unfinished()).strip().equals(FAILED)
          || newest(build.makes()).compareTo(Files.getLastModifiedTime(unfinished())) <= 0;
    } catch (IOException e) {
      return true;
    }
  }

  /** A build that had nothing to do leaves old results; that it ran is noted apart. */
  private boolean isStale(Build build) {
    if (!build.makes().stream().allMatch(Files::exists)
        || isHalfDone(build)
        || lacksClasses(build.sources(), build.makes())) {
      return true;
    }
    FileTime built = newest(build.makes());
    FileTime noted = newest(List.of(stamp()));
    FileTime last = built.compareTo(noted) > 0 ? built : noted;
    return newest(build.sources()).compareTo(last) > 0;
  }

  private Path stamp() {
    return data.resolve("builds")
        .resolve(Digests.brief(Digests.of(folder.toString().getBytes(StandardCharsets.UTF_8))));
  }

  private Path log() {
    return stamp().resolveSibling(stamp().getFileName() + ".log");
  }

  /** Stands there from the beginning of a build until it has succeeded. */
  private Path unfinished() {
    return stamp().resolveSibling(stamp().getFileName() + ".unfinished");
  }

  private static void note(Path file, String text, FileTime time) {
    try {
      Files.createDirectories(file.getParent());
      Files.writeString(file, text + "\n");
      Files.setLastModifiedTime(file, time);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void forget(Path file) {
    try {
      Files.deleteIfExists(file);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** Whether there are sources of Java, and not one class that was made of them. */
  static boolean lacksClasses(List<Path> sources, List<Path> classes) {
    return holds(sources, ".java") && !holds(classes, ".class");
  }

  private static boolean holds(List<Path> places, String ending) {
    for (Path place : places) {
      if (Files.exists(place)) {
        try (Stream<Path> files = Files.walk(place)) {
          if (files.anyMatch(file -> file.toString().endsWith(ending))) {
            return true;
          }
        } catch (IOException e) {
          throw new UncheckedIOException(e);
        }
      }
    }
    return false;
  }

  private static FileTime newest(List<Path> places) {
    FileTime[] newest = {NEVER};
    for (Path place : places) {
      try {
        Files.walkFileTree(
            place,
            new SimpleFileVisitor<>() {
              @Override
              public FileVisitResult visitFile(Path file, BasicFileAttributes facts) {
                return seen(facts.lastModifiedTime());
              }

              @Override
              public FileVisitResult postVisitDirectory(Path dir, IOException e)
                  throws IOException {
                return seen(Files.getLastModifiedTime(dir));
              }

              @Override
              public FileVisitResult visitFileFailed(Path file, IOException e) {
                return FileVisitResult.CONTINUE;
              }

              private FileVisitResult seen(FileTime time) {
                newest[0] = time.compareTo(newest[0]) > 0 ? time : newest[0];
                return FileVisitResult.CONTINUE;
              }
            });
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }
    return newest[0];
  }
}

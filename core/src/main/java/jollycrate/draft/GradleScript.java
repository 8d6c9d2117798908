package jollycrate.draft;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.file.SmallFile;

/**
 * What the script of a Gradle project says in plain words; it is not run.
 *
 * @param text all of it
 */
record GradleScript(Path file, String text) {
  private static final Pattern WAR = Pattern.compile("(?m)^(?!\\s*//).*\\bwar\\b");
  private static final Pattern VERSION =
      Pattern.compile("(?m)^\\s*version\\s*=\\s*[\"']([\\w.+-]+)[\"']");
  private static final Pattern NAME =
      Pattern.compile("(?m)^\\s*rootProject\\.name\\s*=\\s*[\"']([\\w.+-]+)[\"']");

  /** Empty when there is none. */
  static Optional<GradleScript> in(Path folder) throws IOException {
    Optional<Path> file = first(folder, "build.gradle", "build.gradle.kts");
    return file.isEmpty()
        ? Optional.empty()
        : Optional.of(
            new GradleScript(file.get(), SmallFile.text(file.get(), SmallFile.MOST_BYTES)));
  }

  private static Optional<Path> first(Path folder, String... names) {
    return Stream.of(names).map(folder::resolve).filter(Files::isRegularFile).findFirst();
  }

  String name() {
    return file.getFileName().toString();
  }

  boolean isWar() {
    return WAR.matcher(text).find();
  }

  Optional<ProgramMaker> maker() {
    return ProgramMaker.ofGradle(text);
  }

  /**
   * Something with its place.
   *
   * @param where file with line
   */
  record Told(String value, String where) {}

  /** The version, where it is written there. */
  Optional<Told> version() {
    return told(VERSION, text, name());
  }

  /** What the project calls itself, in the file beside. */
  Optional<Told> projectName() throws IOException {
    Optional<Path> settings = first(file.getParent(), "settings.gradle", "settings.gradle.kts");
    return settings.isEmpty()
        ? Optional.empty()
        : told(
            NAME,
            SmallFile.text(settings.get(), SmallFile.MOST_BYTES),
            settings.get().getFileName().toString());
  }

  private static Optional<Told> told(Pattern pattern, String text, String file) {
    Matcher found = pattern.matcher(text);
    if (!found.find()) {
      return Optional.empty();
    }
    long line = 1 + text.substring(0, found.start(1)).chars().filter(c -> c == '\n').count();
    return Optional.of(new Told(found.group(1), file + ":" + line));
  }
}

package jollycrate.build;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.app.MavenCoordinates;

/**
 * Libraries of a project as Maven itself lists them, each on a line with its scope and its file.
 *
 * @param text all lines
 */
record ListedByMaven(String text) {
  private static final Pattern LINE =
      Pattern.compile(
          "\\s*([^:\\s]+):([^:]+):([^:]+):(?:([^:]+):)?[^:]+:"
              + "(compile|runtime|provided|test|system)(?: \\(optional\\))?:(.+?)(?:\\s+\\(optional\\))?\\s*(?:-- module .*)?");

  static List<String> command(String maven, Path into) {
    return List.of(
        maven,
        "-B",
        "-q",
        "dependency:list",
        "-DincludeScope=test",
        "-DoutputAbsoluteArtifactFilename=true",
        "-DoutputFile=" + into);
  }

  List<Path> ofRunTime() {
    return lines()
        .filter(line -> line.group(3).equals("jar"))
        .filter(line -> line.group(5).equals("compile") || line.group(5).equals("runtime"))
        .map(ListedByMaven::file)
        .toList();
  }

  Optional<Path> library(MavenCoordinates named) {
    return lines()
        .filter(
            line ->
                line.group(1).equals(named.group())
                    && line.group(2).equals(named.artifact())
                    && line.group(3).equals(named.type())
                    && named.classifier().equals(Optional.ofNullable(line.group(4)).orElse("")))
        .map(ListedByMaven::file)
        .findFirst();
  }

  private Stream<Matcher> lines() {
    return text.lines().map(LINE::matcher).filter(Matcher::matches);
  }

  private static Path file(Matcher line) {
    return Path.of(line.group(6).strip());
  }
}

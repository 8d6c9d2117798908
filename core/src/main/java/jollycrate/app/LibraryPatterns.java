package jollycrate.app;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Libraries as a file names them: archives, folders of archives, or patterns with {@code *}. What
 * they name is looked up when it is needed, as a build may make it first.
 *
 * @param folder that relative ones start from
 * @param origin where the list stands; its message is not used
 * @param key that holds the list
 */
public record LibraryPatterns(List<String> patterns, Path folder, Problem origin, String key) {

  /**
   * The archives, in the order of the list and sorted within a pattern.
   *
   * @throws ProblemsException when one names nothing
   */
  public List<Path> files() {
    Set<Path> files = new LinkedHashSet<>();
    List<Problem> problems = new ArrayList<>();
    for (String pattern : patterns) {
      try {
        files.addAll(matching(pattern, problems));
      } catch (IOException | IllegalArgumentException e) {
        problems.add(problem("'" + pattern + "' cannot be searched: " + e.getMessage(), ""));
      }
    }
    if (!problems.isEmpty()) {
      throw new ProblemsException(problems);
    }
    return List.copyOf(files);
  }

  private List<Path> matching(String pattern, List<Problem> problems) throws IOException {
    if (!pattern.contains("*")) {
      Path named = folder.resolve(pattern).normalize();
      if (Files.isDirectory(named)) {
        return matching(pattern.replaceFirst("/$", "") + "/*.jar", problems);
      }
      if (!Files.isRegularFile(named)) {
        problems.add(problem("there is no file '" + pattern + "'", "Build first, or fix it"));
      }
      return List.of(named);
    }
    try {
      List<Path> found = FilePattern.files(folder, pattern);
      if (found.isEmpty()) {
        problems.add(problem("no file matches '" + pattern + "'", "Build first, or fix it"));
      }
      return found;
    } catch (NoSuchFileException e) {
      problems.add(
          problem("there is no folder '" + e.getFile() + "'", "Build first, or fix '" + key + "'"));
      return List.of();
    }
  }

  private Problem problem(String message, String fix) {
    return new Problem(origin.file(), origin.line(), origin.column(), message, fix);
  }
}

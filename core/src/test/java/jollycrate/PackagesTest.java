package jollycrate;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/**
 * Packages of the core import only those before them and nothing that belongs to an interface; no
 * packages of any module import each other in a circle; each says what lives there.
 */
class PackagesTest {
  private static final List<String> ORDER =
      List.of(
          "file",
          "xml",
          "json",
          "secret",
          "artifact",
          "pack",
          "host",
          "app",
          "server",
          "boot",
          "stock",
          "script",
          "foresee",
          "step",
          "journal",
          "browser",
          "check",
          "watch",
          "control",
          "front",
          "delivery",
          "maven",
          "build",
          "draft",
          "site",
          "trial",
          "");
  private static final Pattern PACKAGE = Pattern.compile("^package ([\\w.]+);", Pattern.MULTILINE);
  private static final Pattern IMPORT =
      Pattern.compile(
          "^import (?:static )?(jollycrate(?:\\.[a-z]\\w*)*)\\.[A-Z]", Pattern.MULTILINE);
  private static final Path CORE = Path.of("src/main/java/jollycrate");
  private static final Path MODULES = Path.of("").toAbsolutePath().getParent();

  @Test
  void everyImportOfTheCorePointsBackwards() throws IOException {
    List<String> wrong = new ArrayList<>();
    Map<String, Set<String>> core = imports(sources(CORE));
    core.forEach(
        (own, imported) ->
            imported.stream()
                .filter(core::containsKey)
                .filter(other -> place(other) >= place(own))
                .forEach(other -> wrong.add(own + " imports " + other)));
    assertThat(wrong).isEmpty();
  }

  @Test
  void noPackagesOfAnyModuleImportEachOtherInACircle() throws IOException {
    Map<String, Set<String>> left = imports(allSources());
    assertThat(left)
        .containsKeys("jollycrate.server", "jollycrate.cli.command", "jollycrate.keeper");
    boolean smaller = true;
    while (smaller) {
      Set<String> packages = Set.copyOf(left.keySet());
      left.values().forEach(imported -> imported.retainAll(packages));
      smaller = left.values().removeIf(Collection::isEmpty);
    }
    assertThat(left).as("packages in a circle").isEmpty();
  }

  @Test
  void everyPackageSaysWhatLivesThere() throws IOException {
    for (Path file : allSources()) {
      assertThat(file.resolveSibling("package-info.java")).exists();
    }
  }

  @Test
  void noInterfaceCodeInTheCore() throws IOException {
    for (Path file : sources(CORE)) {
      assertThat(Files.readString(file))
          .as(file.toString())
          .doesNotContain("picocli")
          .doesNotContain("System.out")
          .doesNotContain("System.err")
          .doesNotContain("System.exit")
          .doesNotContain("\\u001b");
    }
  }

  private static int place(String name) {
    String brief = name.replaceFirst("^jollycrate\\.?", "");
    assertThat(ORDER).contains(brief);
    return ORDER.indexOf(brief);
  }

  private static Map<String, Set<String>> imports(List<Path> files) throws IOException {
    Map<String, Set<String>> imports = new TreeMap<>();
    for (Path file : files) {
      String text = Files.readString(file);
      Matcher own = PACKAGE.matcher(text);
      assertThat(own.find()).as(file.toString()).isTrue();
      Set<String> imported = imports.computeIfAbsent(own.group(1), name -> new TreeSet<>());
      Matcher matcher = IMPORT.matcher(text);
      while (matcher.find()) {
        imported.add(matcher.group(1));
      }
      imported.remove(own.group(1));
    }
    return imports;
  }

  private static List<Path> allSources() throws IOException {
    try (Stream<Path> modules = Files.list(MODULES)) {
      return modules
          .map(module -> module.resolve("src/main/java"))
          .filter(Files::isDirectory)
          .flatMap(folder -> sources(folder).stream())
          .toList();
    }
  }

  private static List<Path> sources(Path folder) {
    try (Stream<Path> files = Files.walk(folder)) {
      return files
          .filter(file -> file.toString().endsWith(".java"))
          .filter(file -> !file.endsWith("module-info.java"))
          .toList();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}

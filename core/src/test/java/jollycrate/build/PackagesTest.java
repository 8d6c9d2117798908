package jollycrate.build;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Packages of the core import only those before them, and nothing that belongs to an interface. */
class PackagesTest {
  private static final List<String> ORDER =
      List.of(
          "artifact",
          "pack",
          "host",
          "log",
          "app",
          "server",
          "foresee",
          "step",
          "journal",
          "check",
          "delivery",
          "");
  private static final Pattern IMPORT =
      Pattern.compile("^import (?:static )?jollycrate\\.(?:([a-z]+)\\.)?[A-Z]", Pattern.MULTILINE);
  private static final Path SOURCES = Path.of("src/main/java/jollycrate");

  @Test
  void everyImportPointsBackwards() throws IOException {
    List<String> wrong = new ArrayList<>();
    for (Path file : sources()) {
      String own = packageOf(file);
      Matcher matcher = IMPORT.matcher(Files.readString(file));
      while (matcher.find()) {
        String imported = matcher.group(1) == null ? "" : matcher.group(1);
        if (ORDER.indexOf(imported) >= ORDER.indexOf(own)) {
          wrong.add(file + " imports " + imported);
        }
      }
    }
    assertThat(ORDER).containsAll(sources().stream().map(PackagesTest::packageOf).toList());
    assertThat(wrong).isEmpty();
  }

  @Test
  void noInterfaceCodeInTheCore() throws IOException {
    for (Path file : sources()) {
      assertThat(Files.readString(file))
          .as(file.toString())
          .doesNotContain("picocli")
          .doesNotContain("System.out")
          .doesNotContain("System.err")
          .doesNotContain("System.exit")
          .doesNotContain("\\u001b");
    }
  }

  private static List<Path> sources() throws IOException {
    try (Stream<Path> files = Files.walk(SOURCES)) {
      return files.filter(file -> file.toString().endsWith(".java")).toList();
    }
  }

  private static String packageOf(Path file) {
    Path folder = SOURCES.relativize(file).getParent();
    return folder == null ? "" : folder.toString();
  }
}

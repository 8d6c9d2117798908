package jollycrate.app;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.secret.Reference;
import org.tomlj.TomlTable;

/**
 * The Java virtual machine that a server is given.
 *
 * @param home of the Java it runs on; empty: the one this tool runs on, unless it is in an archive
 * @param archive file of the team in which its Java is
 * @param memory maximum heap, as the JVM takes it
 * @param options further ones, as the {@code java} command takes them
 */
public record Jvm(
    Optional<Path> home, Optional<Path> archive, String memory, List<String> options) {
  /** Maximum heap when nothing is said. */
  public static final String MEMORY = "256m";

  /** When nothing is said. */
  public static final Jvm USUAL = new Jvm(Optional.empty(), Optional.empty(), MEMORY, List.of());

  private static final String JAVA = "java";
  private static final String ARCHIVE = "archive";
  private static final List<String> NOT_AN_OPTION =
      List.of("-cp", "-classpath", "--class-path", "-jar", "-m", "--module", "-version", "-help");

  static Jvm read(Section section, Path folder) {
    String memory = section.text("memory").orElse(MEMORY);
    if (!isSize(memory)) {
      section.problem("memory", "'" + memory + "' is no size", "Write it like \"256m\" or \"1g\"");
    }
    List<String> options = new ArrayList<>(section.arguments("java-options"));
    options.forEach(option -> mustBeOption(section, option));
    options.addAll(properties(section.section("properties"), folder));
    Optional<Path> archive = archive(section).map(at -> folder.resolve(at).normalize());
    return new Jvm(
        archive.isPresent()
            ? Optional.empty()
            : section.text(JAVA).map(at -> folder.resolve(at).normalize()),
        archive,
        memory,
        List.copyOf(options));
  }

  private static Optional<String> archive(Section section) {
    if (section.value(JAVA).filter(TomlTable.class::isInstance).isEmpty()) {
      return Optional.empty();
    }
    Section java = section.section(JAVA);
    Optional<String> archive = java.text(ARCHIVE);
    if (!java.has(ARCHIVE)) {
      java.missing(ARCHIVE, "Name the file, like java = { archive = \"jdk-21-linux-x64.tar.gz\" }");
    }
    archive
        .filter(name -> !name.endsWith(".tar.gz") && !name.endsWith(".tgz"))
        .ifPresent(
            name ->
                java.problem(
                    ARCHIVE,
                    "'" + name + "' is no .tar.gz",
                    "Give one with a Java for Linux in it"));
    java.end();
    return archive;
  }

  private static List<String> properties(Section section, Path folder) {
    List<String> options = new ArrayList<>();
    for (String name : section.keys()) {
      String value = section.text(name).orElse("");
      if (name.matches("(?:jolly|catalina)\\..*")) {
        section.problem(name, "jolly itself gives '" + name + "'", "Remove it");
      } else if (Reference.of(value, folder).isPresent()) {
        section.problem(
            name,
            "everybody on the machine can read system properties",
            "Hand a secret over in 'variables'");
      }
      options.add("-D" + name + "=" + value);
    }
    return options;
  }

  /** The maximum heap in bytes. */
  public long memoryBytes() {
    long number = Long.parseLong(memory.substring(0, memory.length() - 1));
    return switch (Character.toLowerCase(memory.charAt(memory.length() - 1))) {
      case 'k' -> number << 10;
      case 'm' -> number << 20;
      default -> number << 30;
    };
  }

  /** Whether a text is a size as the JVM takes it. */
  public static boolean isSize(String text) {
    return text.matches("\\d{1,9}[kKmMgG]");
  }

  private static void mustBeOption(Section section, String option) {
    if (!option.startsWith("-") || NOT_AN_OPTION.contains(option)) {
      section.problem(
          "java-options",
          "'" + option + "' is no option of a Java virtual machine",
          "Write each one by itself, like [\"-Xss2m\", \"-Duser.timezone=UTC\"]");
    } else if (option.startsWith("-Xmx")) {
      section.problem("java-options", "'memory' says that already", "Remove " + option);
    } else if (option.matches("-D(?:jolly|catalina)\\..*")) {
      section.problem("java-options", "jolly itself gives '" + option + "'", "Remove it");
    }
  }
}

package jollycrate.maven;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;

/**
 * What Maven is always told in a folder: in {@code .mvn/maven.config} of the project and in the
 * variables {@code MAVEN_ARGS} and {@code MAVEN_OPTS}.
 *
 * @param words all of it, as it is written
 * @param properties what {@code -D} sets
 * @param user the settings file that {@code -s} names
 * @param global the settings file that {@code -gs} names
 * @param offline whether nothing may be fetched
 * @param profiles whether a profile is chosen by name
 * @param extended whether extensions change what Maven does
 */
record MavenOptions(
    List<String> words,
    Properties properties,
    Optional<Path> user,
    Optional<Path> global,
    boolean offline,
    boolean profiles,
    boolean extended) {
  private static final String FOLDER = ".mvn";

  /** Those of a folder. */
  static MavenOptions of(Path folder, Map<String, String> variables) {
    Optional<Path> root = root(folder);
    List<String> words = new ArrayList<>();
    root.map(MavenOptions::written)
        .ifPresent(text -> words.addAll(words(text.replaceAll("(?m)^\\s*#.*", ""))));
    words.addAll(words(variables.getOrDefault("MAVEN_ARGS", "")));
    words(variables.getOrDefault("MAVEN_OPTS", "")).stream()
        .filter(word -> word.startsWith("-D"))
        .forEach(words::add);
    return read(words, root.orElse(folder));
  }

  private static Optional<Path> root(Path folder) {
    for (Path at = folder.toAbsolutePath(); at != null; at = at.getParent()) {
      if (Files.isDirectory(at.resolve(FOLDER))) {
        return Optional.of(at);
      }
    }
    return Optional.empty();
  }

  private static String written(Path root) {
    Path file = root.resolve(FOLDER).resolve("maven.config");
    try {
      return Files.isRegularFile(file) ? Files.readString(file) : "";
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static List<String> words(String text) {
    return List.of(text.strip().split("\\s+"));
  }

  private static MavenOptions read(List<String> words, Path root) {
    Properties properties = new Properties();
    Optional<Path> user = Optional.empty();
    Optional<Path> global = Optional.empty();
    boolean offline = false;
    boolean profiles = false;
    Iterator<String> left = words.iterator();
    while (left.hasNext()) {
      String word = left.next();
      String name = word.startsWith("--") ? word.replaceFirst("=.*", "") : word;
      if (Set.of("-s", "--settings").contains(name)) {
        user = value(word, name, left).map(root::resolve);
      } else if (Set.of("-gs", "--global-settings").contains(name)) {
        global = value(word, name, left).map(root::resolve);
      } else if (Set.of("-o", "--offline").contains(name)) {
        offline = true;
      } else if (name.startsWith("-P") || name.equals("--activate-profiles")) {
        profiles = true;
      } else if (Set.of("-D", "--define").contains(name)) {
        value(word, name, left).ifPresent(text -> define(properties, text));
      } else if (word.startsWith("-D")) {
        define(properties, word.substring(2));
      }
    }
    boolean extended = Files.exists(root.resolve(FOLDER).resolve("extensions.xml"));
    return new MavenOptions(words, properties, user, global, offline, profiles, extended);
  }

  private static Optional<String> value(String word, String name, Iterator<String> left) {
    if (word.length() > name.length()) {
      return Optional.of(word.substring(name.length() + 1));
    }
    return left.hasNext() ? Optional.of(left.next()) : Optional.empty();
  }

  private static void define(Properties properties, String text) {
    int equals = text.indexOf('=');
    properties.setProperty(
        equals < 0 ? text : text.substring(0, equals),
        equals < 0 ? "true" : text.substring(equals + 1));
  }
}

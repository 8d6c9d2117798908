package jollycrate.memory;

import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.server.Splicer;

/** Fragments that are lines {@code key: text} of a shared file. */
final class LineSplicer implements Splicer {
  @Override
  public Optional<String> find(String text, String key) {
    return text.lines()
        .filter(line -> line.startsWith(key + ": "))
        .map(line -> line.substring(key.length() + 2))
        .findFirst();
  }

  @Override
  public String insert(String text, String key, String fragment) {
    return remove(text, key) + key + ": " + fragment + "\n";
  }

  @Override
  public String remove(String text, String key) {
    return text.lines()
        .filter(line -> !line.startsWith(key + ": "))
        .map(line -> line + "\n")
        .collect(Collectors.joining());
  }
}

package rack.kind;

import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.server.Splicer;

/** Lines in the file that every application on a rack shares; a key is a path. */
final class Doors implements Splicer {
  static String line(String path) {
    return "open " + path;
  }

  @Override
  public Optional<String> find(String text, String path) {
    return text.lines().filter(line(path)::equals).findFirst();
  }

  @Override
  public String insert(String text, String path, String fragment) {
    return remove(text, path) + fragment + "\n";
  }

  @Override
  public String remove(String text, String path) {
    return text.lines()
        .filter(line -> !line.equals(line(path)))
        .map(line -> line + "\n")
        .collect(Collectors.joining());
  }
}

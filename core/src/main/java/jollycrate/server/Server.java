package jollycrate.server;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * One server instance, with everything about it settled.
 *
 * @param installation shared, never written to
 * @param folder the instance's own
 * @param admin port of the admin listener, if it has one
 * @param java home of the Java it runs on
 * @param environment everything its process sees
 * @param declared names of the variables among them that servers.toml asks for
 */
public record Server(
    String name,
    Path installation,
    Path folder,
    int http,
    Optional<Integer> admin,
    String address,
    String memory,
    Path java,
    Map<String, String> environment,
    List<String> declared) {

  /** The Java program it runs with. */
  public Path javaProgram() {
    return java.resolve("bin/java");
  }

  /** Where our own records of it stand. */
  public Path records() {
    return folder.resolve(".jolly");
  }

  /** A path as people read it: relative to the folder where it lies inside. */
  public String shown(Path path) {
    return path.startsWith(folder) ? folder.relativize(path).toString() : path.toString();
  }
}

package jollycrate.server;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.app.Boot;
import jollycrate.app.Front;
import jollycrate.app.Jvm;
import jollycrate.app.ServerLog;

/**
 * One server instance, with everything about it settled.
 *
 * @param installation shared, never written to
 * @param folder the instance's own
 * @param admin port of the admin listener, if it has one
 * @param java home of the Java it runs on
 * @param jvm what else is told to that Java
 * @param environment everything its process sees
 * @param declared names of the variables among them that servers.toml asks for
 * @param beside port on which a new release comes up beside the old one
 * @param log how long the log of a service is kept
 * @param front web server before it
 * @param boot who starts it after the machine was started
 */
public record Server(
    String name,
    Path installation,
    Path folder,
    int http,
    Optional<Integer> admin,
    String address,
    Path java,
    Jvm jvm,
    Map<String, String> environment,
    List<String> declared,
    Optional<Integer> beside,
    ServerLog log,
    Optional<Front> front,
    Optional<Boot> boot) {

  /** The Java program it runs with. */
  public Path javaProgram() {
    return java.resolve("bin/java");
  }

  /**
   * The beginning of the command that runs what people put there, up to the options of its kind.
   */
  public List<String> javaCommand() {
    List<String> command = new ArrayList<>();
    command.add(javaProgram().toString());
    command.add("-Xmx" + jvm.memory());
    command.addAll(jvm.options());
    return command;
  }

  /** The host part of addresses that reach what it binds. */
  public String hostName() {
    boolean any = address.equals("0.0.0.0") || address.equals("::");
    String reached = any ? "127.0.0.1" : address;
    return reached.contains(":") ? "[" + reached + "]" : reached;
  }

  /** Every port of its own. */
  public List<Integer> ports() {
    return Stream.of(Optional.of(http), admin, beside).flatMap(Optional::stream).toList();
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

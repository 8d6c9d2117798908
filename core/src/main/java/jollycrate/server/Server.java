package jollycrate.server;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Boot;
import jollycrate.app.Front;
import jollycrate.app.Jvm;
import jollycrate.app.Keeping;
import jollycrate.app.Ports;
import jollycrate.app.Steering;

/**
 * One server instance, with everything about it settled.
 *
 * @param installation shared, never written to
 * @param folder the instance's own
 * @param ports where it listens
 * @param runtime what its process is started with
 * @param keeping how much of what was is kept
 * @param front web server before it
 * @param steering how one that people have is started
 * @param boot who starts it after the machine was started
 */
public record Server(
    String name,
    Path installation,
    Path folder,
    Ports ports,
    Runtime runtime,
    Keeping keeping,
    Optional<Front> front,
    Steering steering,
    Optional<Boot> boot) {

  /**
   * What a server's process is started with.
   *
   * @param java home of the Java it runs on
   * @param jvm what else is told to that Java
   * @param environment everything its process sees
   * @param declared the variables among them that servers.toml asks for: their names, with values
   *     as they are written there
   * @param unresolved why others of them have no value
   * @param supply what that home is made of before the next start; empty where it stands
   */
  public record Runtime(
      Path java,
      Jvm jvm,
      Map<String, String> environment,
      List<String> declared,
      List<String> unresolved,
      Optional<Supply> supply) {

    /** The Java program itself. */
    public Path javaProgram() {
      return java.resolve("bin/java");
    }
  }

  /**
   * A Java that is brought to its home.
   *
   * @param archive file beside the tool that holds it
   * @param feature its feature release
   */
  public record Supply(Path archive, int feature) {}

  /** The same, listening and reached so. */
  public Server listening(Ports others) {
    return new Server(name, installation, folder, others, runtime, keeping, front, steering, boot);
  }

  /**
   * The beginning of the command that runs what people put there, up to the options of its kind.
   */
  public List<String> javaCommand() {
    List<String> command = new ArrayList<>();
    command.add(runtime.javaProgram().toString());
    command.add("-Xmx" + runtime.jvm.memory());
    command.addAll(runtime.jvm.options());
    return command;
  }

  /**
   * The file that everything it prints goes to.
   *
   * @param usual where servers of its kind print to that we made, from the folder on
   */
  public Path log(Path usual) {
    return folder.resolve(steering.log().map(Path::of).orElse(usual)).normalize();
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

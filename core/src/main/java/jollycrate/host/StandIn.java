package jollycrate.host;

import java.nio.file.Path;
import java.util.List;
import java.util.SortedSet;
import java.util.TreeSet;

/**
 * A small stand-in for another machine, on this one: an SSH server on an address of its own, behind
 * rules that let in what they name.
 *
 * @param name by which it is described
 * @param address by which it is reached
 * @param inside address that servers on it bind, to be reached through its rules
 * @param port of its SSH server, which is always let in
 * @param open further TCP ports that are let in
 */
public record StandIn(
    String name, String address, String inside, int port, SortedSet<Integer> open) {
  private static final String FILE = "stand-in.json";

  /** Where it is described, in a folder of its own. */
  public static Path in(Path folder) {
    return folder.resolve(FILE);
  }

  /** Where it says what it goes by now. */
  public static Path inForce(Path folder) {
    return folder.resolve("in-force.json");
  }

  /** By which configuration ssh reaches it. */
  public static Path configuration(Path folder) {
    return folder.resolve("ssh_config");
  }

  /** The home of whoever logs in. */
  public static Path home(Path folder) {
    return folder.resolve("home");
  }

  /** The argument by which its process is known. */
  public static String mark(Path folder) {
    return "-Djolly.stand-in=" + folder;
  }

  /** The same with other ports that are let in. */
  public StandIn letting(List<Integer> ports) {
    return new StandIn(name, address, inside, port, new TreeSet<>(ports));
  }
}

package jollycrate.app;

import java.util.ArrayList;
import java.util.List;

/**
 * A unit of systemd that a server runs by.
 *
 * @param name with or without {@code .service}
 * @param ofUser whether the manager of this user has it, else that of the machine
 */
public record Unit(String name, boolean ofUser) {
  /** What such a name looks like (systemd.unit(5)). */
  static final String NAME_FORM = "[A-Za-z0-9:_.@\\\\-]{1,240}";

  private static final String OF_USER = "--user";

  /**
   * A command to its manager.
   *
   * @param words what it is to do with the unit
   */
  public List<String> command(String... words) {
    List<String> command = new ArrayList<>(List.of("systemctl"));
    if (ofUser) {
      command.add(OF_USER);
    }
    command.addAll(List.of(words));
    command.add(name);
    return List.copyOf(command);
  }

  /** Reads its journal. */
  public List<String> journal() {
    List<String> command = new ArrayList<>(List.of("journalctl", "--quiet", "--no-pager"));
    command.addAll(ofUser ? List.of(OF_USER, "--user-unit", name) : List.of("--unit", name));
    command.addAll(List.of("--output", "cat"));
    return List.copyOf(command);
  }
}

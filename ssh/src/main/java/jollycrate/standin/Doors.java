package jollycrate.standin;

import java.io.IOException;
import java.net.BindException;
import java.util.Map;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.TreeSet;
import jollycrate.host.StandIn;

/**
 * The inbound rules of a stand-in. Behind an open port is whoever listens on it inside; a closed
 * one does not answer at all.
 */
final class Doors implements AutoCloseable {
  private final StandIn standIn;
  private final Map<Integer, Door> doors = new TreeMap<>();

  /** Ports of which it was said that no rule is in force. */
  private final Set<Integer> told = new TreeSet<>();

  /** Ports that somebody listens on inside, or did once. */
  private final Set<Integer> known = new TreeSet<>();

  Doors(StandIn standIn) {
    this.standIn = standIn;
  }

  /**
   * Follows the rules.
   *
   * @param open ports that are let in
   * @param listening ports that somebody listens on inside
   */
  void set(SortedSet<Integer> open, int[] listening) throws IOException {
    Set<Integer> inside = new TreeSet<>();
    for (int port : listening) {
      inside.add(port);
    }
    known.addAll(inside);
    known.addAll(open);
    for (int port : known) {
      boolean let = open.contains(port);
      if (let && !inside.contains(port)) {
        shut(port);
      } else if (!doors.containsKey(port) || doors.get(port).isOpen() != let) {
        shut(port);
        hang(port, let);
      }
    }
  }

  /** What somebody binds who binds every address cannot be kept from outside: it is tried again. */
  private void hang(int port, boolean let) throws IOException {
    try {
      doors.put(port, let ? Door.open(standIn, port) : Door.closed(standIn, port));
    } catch (BindException e) {
      if (told.add(port)) {
        System.err.println("port " + port + " has no rule in force: " + e.getMessage());
      }
    }
  }

  /** Whether every port is as the rules say. */
  boolean follow(SortedSet<Integer> open) {
    return doors.entrySet().stream()
        .allMatch(door -> door.getValue().isOpen() == open.contains(door.getKey()));
  }

  /** Where nobody listens inside, the kernel refuses. */
  private void shut(int port) throws IOException {
    Door door = doors.remove(port);
    if (door != null) {
      door.close();
    }
  }

  @Override
  public void close() throws IOException {
    for (int port : Set.copyOf(doors.keySet())) {
      shut(port);
    }
  }
}

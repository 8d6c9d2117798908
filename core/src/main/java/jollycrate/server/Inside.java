package jollycrate.server;

import java.util.List;
import java.util.Optional;

/**
 * What a running server knows of an application on it.
 *
 * @param listener as in {@link Placement.Route}
 * @param state in the server's own words
 * @param sessions that are open; empty when not told
 */
public record Inside(
    String listener, String contextPath, String state, Optional<Long> sessions, List<Pool> pools) {

  /**
   * Connections of a data source.
   *
   * @param name JNDI name
   * @param most that it may have; negative: no limit
   */
  public record Pool(String name, long used, long idle, long most) {}
}

package jollycrate.server;

import java.util.List;
import java.util.Map;
import jollycrate.host.Bean;

/**
 * What a running server answered when it was asked about the applications on it.
 *
 * @param beans MBeans of its process (JMX 1.4)
 * @param pages texts of its pages by their paths; without those that did not answer with 200
 */
public record Answers(List<Bean> beans, Map<String, String> pages) {
  /** It told nothing. */
  public static final Answers NONE = new Answers(List.of(), Map.of());
}

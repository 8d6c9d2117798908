package jollycrate.script;

import java.util.List;
import jollycrate.host.Fact;

/**
 * What a database keeps of scripts.
 *
 * @param known in the order in which they came about
 * @param fix what to do when it cannot be read
 */
public record Rows(Fact<List<Row>> known, String fix) {
  /**
   * What it keeps of one.
   *
   * @param digest of what it did
   * @param at when, as an instant of ISO 8601
   * @param by who delivered
   */
  public record Row(String script, String digest, Stage stage, String at, String by) {}
}

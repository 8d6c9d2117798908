package jollycrate.server;

import java.util.ArrayList;
import java.util.List;

/**
 * Why something failed.
 *
 * @param what in one sentence
 * @param where class and line of the application, file and line, or URL; empty when not known
 * @param why the evidence, one line each
 * @param next what to do
 * @param logPosition position of the evidence in the log that was looked at; -1 for none
 */
public record Cause(String what, String where, List<String> why, String next, int logPosition) {

  /** A cause whose evidence stands in no log. */
  public static Cause of(String what, String next) {
    return new Cause(what, "", List.of(), next, -1);
  }

  /** Whether nothing is known but that it failed. */
  public boolean isBare() {
    return where.isEmpty() && why.isEmpty();
  }

  /** The same of an application among several. */
  public Cause of(String application) {
    return behind(application + ": ");
  }

  /** The same, told behind some words. */
  public Cause behind(String words) {
    return new Cause(words + what, where, why, next, logPosition);
  }

  /** The same with something to do, where nothing else is. */
  public Cause orNext(String other) {
    return new Cause(what, where, why, next.isEmpty() ? other : next, logPosition);
  }

  /** The same with further evidence behind it. */
  public Cause with(List<String> more) {
    List<String> all = new ArrayList<>(why);
    all.addAll(more);
    return new Cause(what, where, List.copyOf(all), next, logPosition);
  }
}

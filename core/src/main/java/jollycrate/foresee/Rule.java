package jollycrate.foresee;

import java.util.List;

/** Foresees one kind of trouble. */
@FunctionalInterface
public interface Rule {
  /** What this rule finds; empty when all is well. */
  List<Finding> look(Scene scene);
}

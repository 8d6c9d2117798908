package jollycrate.script;

import java.util.Arrays;
import java.util.Locale;

/** How far a script came in a database. */
public enum Stage {
  /** Nothing is noted of it. */
  NONE,
  /** It was begun; whether all of it is there is not known. */
  BEGUN,
  APPLIED,
  /** It began to be undone; how much of it is there is not known. */
  UNDOING;

  /** As it is noted; empty for nothing. */
  String noted() {
    return this == NONE ? "" : name().toLowerCase(Locale.ROOT);
  }

  static Stage of(String noted) {
    return Arrays.stream(values())
        .filter(stage -> stage.noted().equals(noted))
        .findFirst()
        .orElse(BEGUN);
  }

  /** Whether it is not known how much of it is there. */
  public boolean isHalf() {
    return this == BEGUN || this == UNDOING;
  }
}

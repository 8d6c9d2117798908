package jollycrate.file;

import java.util.Locale;

/** Sizes as people read them. */
public final class Sizes {
  private static final int STEP = 1000;
  private static final int FEW = 10;

  private Sizes() {}

  /** Bytes in decimal units. */
  public static String told(long bytes) {
    if (bytes < STEP) {
      return bytes + " B";
    }
    double value = bytes;
    for (String unit : new String[] {"kB", "MB", "GB", "TB"}) {
      value /= STEP;
      if (value < STEP) {
        return String.format(Locale.ROOT, value < FEW ? "%.1f %s" : "%.0f %s", value, unit);
      }
    }
    return bytes + " B";
  }
}

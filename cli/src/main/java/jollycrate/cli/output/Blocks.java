package jollycrate.cli.output;

/** Amounts as blocks of eighths (Unicode, Block Elements). */
final class Blocks {
  private static final String HEIGHTS = " ▁▂▃▄▅▆▇█";
  private static final String WIDTHS = " ▏▎▍▌▋▊▉█";
  private static final int EIGHTHS = 8;

  private Blocks() {}

  /** A column that is seen as soon as there is anything, as high as its share of the most. */
  static char column(long amount, long most) {
    return HEIGHTS.charAt((int) Math.ceil(amount * (double) EIGHTHS / Math.max(1, most)));
  }

  /** A bar as long as its share of the most. */
  static String bar(long amount, long most, int width) {
    int eighths = (int) (amount * width * EIGHTHS / Math.max(1, most));
    String rest = eighths % EIGHTHS == 0 ? "" : "" + WIDTHS.charAt(eighths % EIGHTHS);
    return "█".repeat(eighths / EIGHTHS) + rest;
  }
}

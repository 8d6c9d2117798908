package jollycrate.file;

import java.util.regex.Pattern;

/** Text from elsewhere without what would steer the terminal that it is shown on (ECMA-48). */
public final class PlainText {
  private static final String OPERATING = "\\x1b[\\]PX^_][^\\x07\\x1b]*(?:\\x07|\\x1b\\\\)?";
  private static final String SEQUENCE = "\\x1b\\[[0-?]*[ -/]*";
  private static final String OTHERS =
      "\\x1b[ -/]*[0-Z\\\\^-~]?|[\\x00-\\x08\\x0b-\\x1f\\x7f-\\x9f]";

  private static final Pattern ALL =
      Pattern.compile(OPERATING + "|" + SEQUENCE + "[@-~]?|" + OTHERS);

  /** What is left may set off text, as by colours. */
  private static final Pattern ALL_BUT_LOOKS =
      Pattern.compile(OPERATING + "|(?!\\x1b\\[[0-9;]*m)(?:" + SEQUENCE + "[@-~]?|" + OTHERS + ")");

  private PlainText() {}

  /** Without any; tabs and line feeds stay. */
  public static String of(String text) {
    return ALL.matcher(text).replaceAll("");
  }

  /** The same, with what sets off text. */
  public static String withLooks(String text) {
    return ALL_BUT_LOOKS.matcher(text).replaceAll("");
  }
}

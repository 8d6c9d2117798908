package jollycrate.app;

import com.google.re2j.Pattern;

/** Where a value stands in an answer, as people write it. */
final class PlaceText {
  private static final String IN_HEADER = "header:";
  private static final String IN_TEXT = "text:";

  private PlaceText() {}

  /** Reads what stands at a key; what is wrong with it is said. */
  static Check.Place read(Section section, String key, String told) {
    if (told.startsWith(IN_HEADER)) {
      return new Check.Place(Check.Place.In.HEADER, told.substring(IN_HEADER.length()));
    }
    if (told.startsWith(IN_TEXT)) {
      String pattern = told.substring(IN_TEXT.length());
      boolean right = section.mustBePattern(key, pattern);
      if (right && Pattern.compile(pattern).matcher("").groupCount() == 0) {
        section.problem(key, "'" + pattern + "' has no group", "Put the value in '(' and ')'");
      }
      return new Check.Place(Check.Place.In.TEXT, pattern);
    }
    if (!told.isEmpty() && !told.startsWith("/")) {
      section.problem(
          key,
          "'" + told + "' is no place in an answer",
          "Write a JSON Pointer like \"/id\", \"header:Location\" or \"text:No. (\\\\d+)\"");
    }
    return new Check.Place(Check.Place.In.JSON, told);
  }
}

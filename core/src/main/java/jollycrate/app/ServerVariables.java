package jollycrate.app;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * Variables of the environment that a server's process sees besides the usual ones.
 *
 * @param passed names of those that are passed on from whoever starts it
 * @param given values by name as they are written, which may be references
 * @param folder what references to files start from
 */
public record ServerVariables(List<String> passed, Map<String, String> given, Path folder) {
  private static final String NAME_FORM = "[A-Za-z_][A-Za-z0-9_]*";

  /** No further ones. */
  public static final ServerVariables NONE = new ServerVariables(List.of(), Map.of(), Path.of(""));

  static ServerVariables read(Section section, Path folder) {
    return new ServerVariables(section.texts("env"), table(section.section("variables")), folder);
  }

  /** A table of variables. */
  static Map<String, String> table(Section section) {
    Map<String, String> variables = new LinkedHashMap<>();
    for (String name : section.keys()) {
      if (!name.matches(NAME_FORM)) {
        section.problem(
            name, "'" + name + "' is no name of a variable", "Use letters, digits and _");
      }
      section.text(name).ifPresent(value -> variables.put(name, section.anchored(name, value)));
    }
    section.end();
    return variables;
  }

  /** What is asked for, without a secret: names, with values as they are written. */
  public List<String> declared() {
    return Stream.concat(
            passed.stream(),
            given.entrySet().stream().map(one -> one.getKey() + "=" + one.getValue()))
        .toList();
  }
}

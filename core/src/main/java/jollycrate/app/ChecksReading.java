package jollycrate.app;

import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import jollycrate.secret.Reference;

/** Reads how it is proven: {@code [[check]]}, {@code [[access]]}, {@code [[data]]}. */
final class ChecksReading {
  private final Section root;
  private final Path folder;
  private final Access access;

  ChecksReading(Section root, Path folder, Access access) {
    this.root = root;
    this.folder = folder;
    this.access = access;
  }

  List<Check> requests() {
    Values values = values();
    return Stream.concat(
            root.sections("check").stream()
                .map(section -> new CheckSection(section, access, values).read()),
            root.sections("access").stream()
                .flatMap(section -> new AccessSection(section, access).read().stream()))
        .toList();
  }

  List<DataCheck> data(List<DataSource> dataSources) {
    return root.sections("data").stream()
        .map(section -> new DataCheckSection(section, dataSources).read())
        .toList();
  }

  private Values values() {
    Section section = root.section("values");
    Values values = Values.NONE;
    for (String name : section.keys()) {
      Object value = section.value(name).orElseThrow();
      if (!name.matches(Values.NAME_FORM)) {
        section.problem(
            name,
            "'" + name + "' is no name for a value",
            "Use small letters, digits and '-', beginning with a letter");
      }
      if (value instanceof String text && Reference.of(text, folder).isPresent()) {
        section.problem(
            name,
            "'" + text + "' would be sent as it is written",
            "Log in with 'as': secrets are not put into requests otherwise");
      }
      values = values.and(name, TomlJson.of(value));
    }
    return values;
  }
}

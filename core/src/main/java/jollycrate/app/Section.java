package jollycrate.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.secret.Reference;
import org.tomlj.TomlArray;
import org.tomlj.TomlPosition;
import org.tomlj.TomlTable;

/**
 * A table of a TOML file, read key by key. Per-server values override the common ones. What is
 * asked for is known; what else stands there is reported by {@link #end}.
 */
final class Section {
  private final TomlFile file;
  private final String name;
  private final List<TomlTable> layers;
  private final TomlPosition position;
  private final Set<String> known = new LinkedHashSet<>();

  Section(TomlFile file, String name, List<TomlTable> layers, TomlPosition position) {
    this.file = file;
    this.name = name;
    this.layers = layers;
    this.position = position;
  }

  /** Every key of every layer, in order. */
  Set<String> keys() {
    Set<String> keys = new LinkedHashSet<>();
    for (int layer = layers.size() - 1; layer >= 0; layer--) {
      keys.addAll(layers.get(layer).keySet());
    }
    return keys;
  }

  /** Keys whose values are of a type, in order. */
  Set<String> keysOf(Class<?> type) {
    Set<String> found = new LinkedHashSet<>();
    for (String key : keys()) {
      if (layerOf(key).map(layer -> layer.get(List.of(key))).filter(type::isInstance).isPresent()) {
        found.add(key);
      }
    }
    return found;
  }

  boolean has(String key) {
    known.add(key);
    return layerOf(key).isPresent();
  }

  Optional<Object> value(String key) {
    known.add(key);
    return layerOf(key).map(layer -> layer.get(List.of(key)));
  }

  Optional<String> text(String key) {
    return typed(key, String.class, "a text in quotes");
  }

  Optional<Long> number(String key, long least, long most) {
    Optional<Long> number = typed(key, Long.class, "a whole number");
    if (number.isPresent() && (number.get() < least || number.get() > most)) {
      problem(key, "'" + key + "' is " + number.get(), "Give " + least + " to " + most);
      return Optional.empty();
    }
    return number;
  }

  /** Whether a key is {@code true}; false when it is not written. */
  boolean truth(String key) {
    return typed(key, Boolean.class, "true or false").orElse(false);
  }

  Optional<Duration> duration(String key) {
    Optional<String> text = text(key);
    if (text.isEmpty()) {
      return Optional.empty();
    }
    Optional<Duration> duration = Durations.parse(text.get());
    if (duration.isEmpty()) {
      problem(
          key,
          "'" + key + "' is no length of time: \"" + text.get() + "\"",
          "Write it like \"800ms\", \"5s\" or \"2m\"");
    }
    return duration;
  }

  /** A list of texts; one text counts as a list of one. */
  List<String> texts(String key) {
    Optional<Object> value = value(key);
    if (value.isEmpty()) {
      return List.of();
    }
    if (value.get() instanceof String single) {
      return List.of(single);
    }
    if (value.get() instanceof TomlArray array
        && array.toList().stream().allMatch(String.class::isInstance)) {
      return array.toList().stream().map(String.class::cast).toList();
    }
    problem(key, "'" + key + "' is no list of texts", "Write it like [\"one\", \"two\"]");
    return List.of();
  }

  /** The arguments of a command, as a list; one text is taken for one argument without blanks. */
  List<String> arguments(String key) {
    value(key)
        .filter(String.class::isInstance)
        .map(text -> ((String) text).strip())
        .filter(text -> text.contains(" "))
        .ifPresent(
            text ->
                problem(
                    key,
                    "'" + text + "' is one argument with blanks in it",
                    "Write each by itself, like [\""
                        + String.join("\", \"", text.split("\\s+"))
                        + "\"]"));
    return texts(key);
  }

  /**
   * Where a password stands.
   *
   * @param folder what a path in it starts from
   */
  Optional<Reference> reference(String key, Path folder) {
    Optional<String> text = text(key);
    Optional<Reference> reference = text.flatMap(written -> Reference.of(written, folder));
    if (text.isPresent() && reference.isEmpty()) {
      problem(
          key,
          "a password must not stand in this file",
          "Write where it stands: \"env:NAME\" or \"file:PATH\"");
    }
    return reference;
  }

  /** The table of that name, empty when it is not written. */
  Section section(String key) {
    known.add(key);
    List<TomlTable> inner = new ArrayList<>();
    TomlPosition place = position;
    for (TomlTable layer : layers) {
      Object value = layer.get(List.of(key));
      if (value instanceof TomlTable table) {
        place = inner.isEmpty() ? layer.inputPositionOf(List.of(key)) : place;
        inner.add(table);
      } else if (value != null) {
        file.problem(
            layer.inputPositionOf(List.of(key)),
            "'" + key + "' is no table",
            "Write a table " + "[" + path(key) + "]");
      }
    }
    return new Section(file, path(key), inner, place);
  }

  /** The table of that name as the topmost layer has it: per-server values replace it whole. */
  Section topmost(String key) {
    Section inner = section(key);
    return new Section(file, inner.name, inner.layers.stream().limit(1).toList(), inner.position);
  }

  /** The table of that name laid over this one. */
  Section over(String key) {
    Section inner = section(key);
    List<TomlTable> all = new ArrayList<>(inner.layers);
    all.addAll(layers);
    return new Section(file, inner.name, all, inner.position);
  }

  /** Where a key stands, else where its table begins. */
  Problem place(String key) {
    TomlPosition place =
        layerOf(key).map(layer -> layer.inputPositionOf(List.of(key))).orElse(position);
    return new Problem(file.path(), place.line(), place.column(), "", "");
  }

  /** The tables of an array {@code [[key]]}. */
  List<Section> sections(String key) {
    Optional<Object> value = value(key);
    if (value.isEmpty()) {
      return List.of();
    }
    List<Section> sections = new ArrayList<>();
    if (value.get() instanceof TomlArray array) {
      for (int i = 0; i < array.size(); i++) {
        if (array.get(i) instanceof TomlTable table) {
          sections.add(new Section(file, path(key), List.of(table), array.inputPositionOf(i)));
        }
      }
      if (sections.size() == array.size()) {
        return sections;
      }
    }
    problem(key, "'" + key + "' is no list of tables", "Begin each with [[" + path(key) + "]]");
    return List.of();
  }

  boolean isEmpty() {
    return layers.isEmpty();
  }

  /** Says that a key which is needed is not there. */
  void missing(String key, String fix) {
    file.problem(position, "'" + path(key) + "' is missing", fix);
  }

  void problem(String key, String message, String fix) {
    Problem place = place(key);
    file.problem(TomlPosition.positionAt(place.line(), place.column()), message, fix);
  }

  /** Reports every key that nobody asked for. */
  void end() {
    for (TomlTable layer : layers) {
      for (String key : layer.keySet()) {
        if (!known.contains(key)) {
          file.problem(layer.inputPositionOf(List.of(key)), unknown(key), fixFor(key, known));
        }
      }
    }
  }

  static String fixFor(String word, Collection<String> known) {
    return Nearest.to(word, known)
        .map(near -> "Did you mean '" + near + "'?")
        .orElse("Known here: " + String.join(", ", known));
  }

  private String unknown(String key) {
    return "unknown key '" + key + "'" + (name.isEmpty() ? "" : " in [" + name + "]");
  }

  private <T> Optional<T> typed(String key, Class<T> type, String wanted) {
    Optional<Object> value = value(key);
    if (value.isPresent() && !type.isInstance(value.get())) {
      problem(key, "'" + key + "' is not " + wanted, "");
      return Optional.empty();
    }
    return value.map(type::cast);
  }

  private Optional<TomlTable> layerOf(String key) {
    return layers.stream().filter(layer -> layer.contains(List.of(key))).findFirst();
  }

  private String path(String key) {
    String written = key.matches("[A-Za-z0-9_-]+") ? key : "\"" + key + "\"";
    return name.isEmpty() ? written : name + "." + written;
  }
}

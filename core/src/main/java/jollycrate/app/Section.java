package jollycrate.app;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
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
  private static final String FILE = "file:";

  private final TomlFile common;
  private final String name;

  /** The same where of several tables of that name each is meant by its number. */
  private final String numbered;

  private final List<Layer> layers;
  private final Layer.Place begin;
  private final Set<String> known = new LinkedHashSet<>();

  /** A whole file, of which the last layer is. */
  static Section root(List<Layer> layers) {
    Layer common = layers.get(layers.size() - 1);
    Layer.Place begin = new Layer.Place(common.file(), TomlPosition.positionAt(1, 1));
    return new Section(common.file(), "", "", layers, begin);
  }

  private Section(
      TomlFile common, String name, String numbered, List<Layer> layers, Layer.Place begin) {
    this.common = common;
    this.name = name;
    this.numbered = numbered;
    this.layers = layers;
    this.begin = begin;
  }

  /** Every key of every layer, in order. */
  Set<String> keys() {
    Set<String> keys = new LinkedHashSet<>();
    for (int layer = layers.size() - 1; layer >= 0; layer--) {
      keys.addAll(layers.get(layer).table().keySet());
    }
    return keys;
  }

  /** Keys whose values are of a type, in order. */
  Set<String> keysOf(Class<?> type) {
    Set<String> found = new LinkedHashSet<>();
    for (String key : keys()) {
      if (layerOf(key).map(layer -> layer.get(key)).filter(type::isInstance).isPresent()) {
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
    Optional<Layer> layer = layerOf(key);
    layer.filter(it -> !isTables(it.get(key))).ifPresent(it -> wrote(key, it));
    return layer.map(it -> it.get(key));
  }

  private static boolean isTables(Object value) {
    return value instanceof TomlTable
        || value instanceof TomlArray array
            && array.toList().stream().anyMatch(TomlTable.class::isInstance);
  }

  private void wrote(String key, Layer counts) {
    List<String> overrides =
        layers.stream()
            .filter(layer -> layer != counts && layer.has(key))
            .map(layer -> layer.place(key).toString())
            .toList();
    String value = TomlJson.text(counts.get(key));
    common.wrote(new Written(path(numbered, key), value, counts.place(key).toString(), overrides));
  }

  /** The folder that paths in a value start from: that of the file in which it stands. */
  Path folder(String key) {
    Path file = layerOf(key).map(Layer::file).orElse(begin.file()).path();
    return file.toAbsolutePath().getParent();
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
   * A text that may be a reference to a file: one from another file than the common values is made
   * absolute, as paths in it start from there.
   */
  String anchored(String key, String text) {
    Path usual = common.path().toAbsolutePath().getParent();
    boolean relative = text.startsWith(FILE) && !folder(key).equals(usual);
    return relative ? FILE + folder(key).resolve(text.substring(FILE.length())) : text;
  }

  /** Where a password stands. */
  Optional<Reference> reference(String key) {
    Optional<String> text = text(key);
    Optional<Reference> reference =
        text.flatMap(written -> Reference.of(anchored(key, written), folder(key)));
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
    List<Layer> inner = new ArrayList<>();
    Layer.Place place = begin;
    for (Layer layer : layers) {
      Object value = layer.get(key);
      if (value instanceof TomlTable table) {
        place = inner.isEmpty() ? layer.place(key) : place;
        inner.add(new Layer(layer.file(), table));
      } else if (value != null) {
        layer
            .place(key)
            .problem("'" + key + "' is no table", "Write a table " + "[" + path(key) + "]");
      }
    }
    return new Section(common, path(key), path(numbered, key), inner, place);
  }

  /** The table of that name as the topmost layer has it: per-server values replace it whole. */
  Section topmost(String key) {
    Section inner = section(key);
    return new Section(
        common, inner.name, inner.numbered, inner.layers.stream().limit(1).toList(), inner.begin);
  }

  /** The table of that name laid over this one. */
  Section over(String key) {
    Section inner = section(key);
    List<Layer> all = new ArrayList<>(inner.layers);
    all.addAll(layers);
    return new Section(common, inner.name, inner.numbered, all, inner.begin);
  }

  /** Where a key stands, else where its table begins. */
  Problem place(String key) {
    Layer.Place place = placeOf(key);
    return new Problem(
        place.file().path(), place.position().line(), place.position().column(), "", "");
  }

  private Layer.Place placeOf(String key) {
    return layerOf(key).map(layer -> layer.place(key)).orElse(begin);
  }

  /** The tables of an array {@code [[key]]}. */
  List<Section> sections(String key) {
    Optional<Object> value = value(key);
    if (value.isEmpty()) {
      return List.of();
    }
    List<Section> sections = new ArrayList<>();
    TomlFile file = placeOf(key).file();
    if (value.get() instanceof TomlArray array) {
      for (int i = 0; i < array.size(); i++) {
        if (array.get(i) instanceof TomlTable table) {
          Layer.Place place = new Layer.Place(file, array.inputPositionOf(i));
          String number = array.size() > 1 ? "[" + (i + 1) + "]" : "";
          sections.add(
              new Section(
                  common,
                  path(key),
                  path(numbered, key) + number,
                  List.of(new Layer(file, table)),
                  place));
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
    begin.problem("'" + path(key) + "' is missing", fix);
  }

  void problem(String key, String message, String fix) {
    placeOf(key).problem(message, fix);
  }

  /** Whether a text that stands there is a regular expression; says so when it is none. */
  boolean mustBePattern(String key, String text) {
    try {
      Pattern.compile(text);
      return true;
    } catch (PatternSyntaxException e) {
      problem(
          key,
          "'" + text + "' is no regular expression: " + e.getDescription(),
          "Fix '"
              + e.getPattern()
              + "' in it; what looks ahead or behind, and references back to"
              + " a group, are not known here");
      return false;
    }
  }

  /** A table of texts, empty when it is not written; numbers and truths become texts. */
  Map<String, String> textsByName(String key) {
    Map<String, String> texts = new LinkedHashMap<>();
    table(key)
        .ifPresent(
            table ->
                table
                    .keySet()
                    .forEach(name -> texts.put(name, String.valueOf(table.get(List.of(name))))));
    texts.values().stream()
        .filter(text -> text.chars().anyMatch(Character::isISOControl))
        .findFirst()
        .ifPresent(text -> problem(key, "a value holds a control character", "Remove it"));
    return texts;
  }

  /** A table as it is written. */
  Optional<TomlTable> table(String key) {
    Optional<Object> value = value(key);
    if (value.isPresent() && !(value.get() instanceof TomlTable)) {
      problem(key, "'" + key + "' is no table", "Write it like " + key + " = { name = \"value\" }");
    }
    return value.filter(TomlTable.class::isInstance).map(TomlTable.class::cast);
  }

  /** Reports every key that nobody asked for. */
  void end() {
    for (Layer layer : layers) {
      for (String key : layer.table().keySet()) {
        if (!known.contains(key)) {
          layer.place(key).problem(unknown(key), fixFor(key, known));
        }
      }
    }
  }

  static String fixFor(String word, Collection<String> known) {
    return Nearest.to(word, known)
        .map(near -> "Did you mean '" + near + "'?")
        .orElse("Known here: " + (known.isEmpty() ? "none" : String.join(", ", known)));
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

  private Optional<Layer> layerOf(String key) {
    return layers.stream().filter(layer -> layer.has(key)).findFirst();
  }

  private String path(String key) {
    return path(name, key);
  }

  private static String path(String table, String key) {
    String written = key.matches("[A-Za-z0-9_-]+") ? key : "\"" + key + "\"";
    return table.isEmpty() ? written : table + "." + written;
  }
}

package jollycrate.secret;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.file.IoReason;
import jollycrate.file.SmallFile;
import jollycrate.xml.XmlDocument;

/**
 * Resolves references and hides every value it ever resolved, plain or escaped. Machines that are
 * connected to at the same time share one.
 */
public final class Secrets {
  /** What stands in place of a secret. */
  public static final String HIDDEN = "(hidden)";

  /** A file that holds more is none that holds a password. */
  private static final long MOST_BYTES = 1 << 20;

  /** Shorter ones are parts of ordinary words, too. */
  private static final int SHORT = 4;

  private final Set<String> tooShort = new TreeSet<>();

  private final Function<String, String> environment;
  private final Map<String, String> labels = new HashMap<>();
  private final Map<String, Integer> seen = new HashMap<>();
  private Pattern known;

  /**
   * @param environment value of a variable, null when it is not set
   */
  public Secrets(Function<String, String> environment) {
    this.environment = environment;
  }

  /**
   * The value behind a reference.
   *
   * @throws SecretException when there is none, or it holds a character that ends a line
   */
  public String resolve(Reference reference) {
    String value = value(reference);
    hide(value, HIDDEN);
    if (value.length() < SHORT) {
      note(reference);
    }
    return value;
  }

  private synchronized void note(Reference reference) {
    tooShort.add(reference.text());
  }

  /** References to values so short that they are hidden only where they stand as a value. */
  public synchronized List<String> tooShort() {
    return List.copyOf(tooShort);
  }

  /**
   * The same of a reference to something that everybody may see.
   *
   * @throws SecretException when there is none, or it holds a character that ends a line
   */
  public String value(Reference reference) {
    String value =
        reference
            .variable()
            .map(name -> variable(name, reference.folder()))
            .orElseGet(() -> firstLine(reference));
    if (value.chars().anyMatch(Character::isISOControl)) {
      throw new SecretException(
          "Cannot use '" + reference.text() + "': it holds a control character");
    }
    return value;
  }

  private String variable(String name, Path folder) {
    return Optional.ofNullable(environment.apply(name))
        .filter(value -> !value.isEmpty())
        .or(() -> VariablesFile.value(folder, name))
        .filter(value -> !value.isEmpty())
        .orElseThrow(
            () ->
                new SecretException(
                    "Cannot read 'env:"
                        + name
                        + "': the variable is not set. Set "
                        + name
                        + ", or write it into "
                        + folder.resolve(VariablesFile.NAME)));
  }

  private static String firstLine(Reference reference) {
    try {
      return SmallFile.text(reference.file(), MOST_BYTES)
          .lines()
          .findFirst()
          .filter(line -> !line.isEmpty())
          .orElseThrow(
              () ->
                  new SecretException(
                      "Cannot read '" + reference.text() + "': its first line is empty"));
    } catch (IOException e) {
      throw new SecretException(
          "Cannot read '"
              + reference.text()
              + "': "
              + IoReason.of(e)
              + " ("
              + reference.file()
              + ")");
    }
  }

  /** Hides a value from now on behind a label of its own. */
  public synchronized void hide(String value, String label) {
    if (value.isEmpty()) {
      return;
    }
    labels.put(value, label);
    labels.put(XmlDocument.escape(value), label);
    labels.put(value.replace("\\", "\\\\").replace("\"", "\\\""), label);
    labels.put(unicodeEscaped(value), label);
    labels.put(unicodeEscaped(value).replace("\\", "\\\\"), label);
    labels.put(URLEncoder.encode(value, StandardCharsets.UTF_8), label);
    known = null;
  }

  /** Whether a text is to be looked through for secrets: the first time that it is seen so. */
  public synchronized boolean isNew(String file, byte[] text) {
    Integer hash = Arrays.hashCode(text);
    return !hash.equals(seen.put(file, hash));
  }

  /** Hides a value from now on, unless it has a label already. */
  public synchronized void hideIfNew(String value) {
    hideIfNew(value, HIDDEN);
  }

  /** The same behind a label of its own. */
  public synchronized void hideIfNew(String value, String label) {
    if (!labels.containsKey(value)) {
      hide(value, label);
    }
  }

  /** Every character but letters and digits of ASCII as {@code \\uXXXX}. */
  public static String unicodeEscaped(String value) {
    StringBuilder escaped = new StringBuilder();
    for (char c : value.toCharArray()) {
      if (c < 0x80 && Character.isLetterOrDigit(c)) {
        escaped.append(c);
      } else {
        escaped.append(String.format("\\u%04x", (int) c));
      }
    }
    return escaped.toString();
  }

  /** A text without any of the hidden values. */
  public synchronized String mask(String text) {
    if (labels.isEmpty()) {
      return text;
    }
    if (known == null) {
      known = compiled();
    }
    return known
        .matcher(text)
        .replaceAll(found -> Matcher.quoteReplacement(labels.get(found.group())));
  }

  /** A document without any of the hidden values; only its texts can hold one. */
  public JsonNode mask(JsonNode node) {
    if (node.isTextual()) {
      return TextNode.valueOf(mask(node.textValue()));
    }
    if (node instanceof ObjectNode object) {
      object.properties().forEach(field -> field.setValue(mask(field.getValue())));
    } else if (node instanceof ArrayNode array) {
      for (int i = 0; i < array.size(); i++) {
        array.set(i, mask(array.get(i)));
      }
    }
    return node;
  }

  private Pattern compiled() {
    StringBuilder any = new StringBuilder();
    labels.keySet().stream()
        .sorted(Comparator.comparingInt(String::length).reversed())
        .forEach(value -> any.append(any.isEmpty() ? "" : "|").append(quoted(value)));
    return Pattern.compile(any.toString());
  }

  /** A short one is hidden where it stands as a value: alone, or behind a sign that says so. */
  private static String quoted(String value) {
    String literal = Pattern.quote(value);
    return value.length() < SHORT
        ? "\\A" + literal + "\\z|(?<=[=:>\"'])" + literal + "(?![\\w.])"
        : literal;
  }
}

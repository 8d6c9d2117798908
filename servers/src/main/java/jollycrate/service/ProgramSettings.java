package jollycrate.service;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.app.Application;
import jollycrate.app.Program;
import jollycrate.file.Digests;
import jollycrate.host.Content;
import jollycrate.hosting.Refusals;

/** The settings file of a program: written from the description, or copied. */
final class ProgramSettings {
  private static final Pattern VALUE =
      Pattern.compile("(?m)^[^=:#\\n]{1,200}[=:]\\s*[\"']?(.{4,}?)[\"']?,?\\s*$");

  private final Application application;
  private final Program.SettingsFile file;
  private final ServiceFiles files;
  private final References values;
  private final Refusals refusals;
  private final SettingsText format;

  ProgramSettings(
      Application application,
      Program.SettingsFile file,
      ServiceFiles files,
      References values,
      Refusals refusals) {
    this.application = application;
    this.file = file;
    this.files = files;
    this.values = values;
    this.refusals = refusals;
    this.format = new SettingsText(file.name());
  }

  /**
   * The file as it is put.
   *
   * @param secret whether only its owner may read it
   * @param secrets values in it that must not be shown, as they are and as they stand in it
   */
  record Made(Path file, String text, boolean secret, List<String> secrets) {}

  /** The settings file with everything that is handed over in it. */
  Made made(Handing handing) {
    String text =
        file.copied().isPresent()
            ? copied(file.copied().get(), handing)
            : format.written(withReferences(handing));
    String name = Path.of(file.name()).getFileName().toString();
    String digest = Digests.brief(Content.of(text).digest());
    Set<String> secrets = new LinkedHashSet<>(handing.secretSettings);
    handing.secretSettings.forEach(value -> secrets.addAll(format.written(value)));
    return new Made(
        files.settings().resolve(digest).resolve(name),
        text,
        !secrets.isEmpty() || isPrivate(file.copied()),
        List.copyOf(secrets));
  }

  /** What only its owner may read is private here too, with every value in it. */
  private static boolean isPrivate(Optional<Path> copied) {
    try {
      return copied.isPresent()
          && Files.exists(copied.get())
          && !Files.getPosixFilePermissions(copied.get()).contains(PosixFilePermission.OTHERS_READ)
          && !Files.getPosixFilePermissions(copied.get()).contains(PosixFilePermission.GROUP_READ);
    } catch (IOException e) {
      return true;
    }
  }

  private String copied(Path from, Handing handing) {
    String text;
    try {
      text = Files.readString(from);
    } catch (IOException e) {
      refusals.refuse(from.toString(), "this settings file cannot be read", "Fix 'settings-from'");
      return "";
    }
    if (isPrivate(Optional.of(from))) {
      Matcher value = VALUE.matcher(text);
      while (value.find()) {
        handing.secretSettings.add(value.group(1));
      }
    }
    format
        .fault(text)
        .ifPresent(fault -> refusals.refuse(from.toString(), fault, "Fix the file there"));
    for (Map.Entry<String, JsonNode> value : handing.settings.entrySet()) {
      Optional<String> more = format.with(text, value.getKey(), value.getValue().asText());
      if (more.isEmpty()) {
        refusals.refuse(
            from.toString(),
            "'" + value.getKey() + "' cannot be added to a copied file of this format",
            "Write the file from [settings], or hand the value over as an argument or a variable");
      }
      text = more.orElse(text);
    }
    return text;
  }

  private ObjectNode withReferences(Handing handing) {
    ObjectNode settings = JsonNodeFactory.instance.objectNode();
    application
        .making()
        .settings()
        .forEach((key, value) -> settings.set(key, resolved(value, handing)));
    handing.settings.forEach((path, value) -> put(settings, path, value));
    return settings;
  }

  private JsonNode resolved(JsonNode node, Handing handing) {
    if (node.isObject()) {
      ObjectNode object = JsonNodeFactory.instance.objectNode();
      node.properties()
          .forEach(field -> object.set(field.getKey(), resolved(field.getValue(), handing)));
      return object;
    }
    if (node.isArray()) {
      ArrayNode array = JsonNodeFactory.instance.arrayNode();
      node.forEach(element -> array.add(resolved(element, handing)));
      return array;
    }
    Optional<String> value =
        node.isTextual() ? values.referred(node.textValue()) : Optional.empty();
    value.ifPresent(handing.secretSettings::add);
    return value.<JsonNode>map(JsonNodeFactory.instance::textNode).orElse(node);
  }

  private void put(ObjectNode settings, String path, JsonNode value) {
    int dot = path.indexOf('.');
    if (dot <= 0) {
      settings.set(path, value);
      return;
    }
    String first = path.substring(0, dot);
    JsonNode inner = settings.path(first);
    if (inner.isMissingNode() || inner.isObject()) {
      put(settings.withObjectProperty(first), path.substring(dot + 1), value);
    } else {
      refusals.refuse(
          file.name(),
          "[settings] gives '" + first + "' a value, and '" + path + "' is to stand below it",
          "Take that value away, or hand this one over by another way in [program]");
    }
  }
}

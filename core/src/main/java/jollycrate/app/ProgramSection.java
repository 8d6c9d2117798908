package jollycrate.app;

import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.tomlj.TomlTable;

/** Reads {@code [program]}. */
final class ProgramSection {
  private static final Pattern PLACEHOLDER = Pattern.compile("\\{[A-Za-z]+}");
  private static final String OWN_PORT = "own";
  private static final String HTTP = "http";
  private static final String TCP = "tcp";
  private static final List<String> ENDINGS = List.of("properties", "yaml", "yml", "toml", "json");
  private static final Map<String, Boolean> RESTARTS = Map.of("never", false, "on-crash", true);

  private final Section section;
  private final List<DataSource> dataSources;

  ProgramSection(Section section, List<DataSource> dataSources) {
    this.section = section;
    this.dataSources = dataSources;
  }

  Program read() {
    boolean knowsPort = section.value("port").filter(OWN_PORT::equals).isPresent();
    Optional<Program.SettingsFile> settings = settings();
    Program program =
        new Program(
            knowsPort ? Optional.empty() : way(section, "port"),
            knowsPort,
            speaksHttp(),
            way(section, "address"),
            section.arguments("arguments"),
            section.arguments("java-options"),
            ServerVariables.table(section.section("variables")),
            inside("folder").orElse(Program.WORK),
            section.text("ready"),
            section.text("main"),
            section.duration("stops-within").orElse(Program.STOPS_WITHIN),
            restarts(),
            settings,
            handed());
    if (settings.isEmpty() && usesSettings(program)) {
      section.problem(
          "settings-file",
          "a settings file is spoken of, and none is named",
          "Name it, like settings-file = \"app.properties\"");
    }
    Stream.concat(program.arguments().stream(), program.java().stream())
        .flatMap(text -> PLACEHOLDER.matcher(text).results())
        .map(MatchResult::group)
        .filter(word -> !Program.PLACEHOLDERS.contains(word))
        .forEach(this::misspelt);
    if (section.has("port") && program.holds(Program.PORT)) {
      section.problem(
          "port",
          "the program would be told its port twice: " + Program.PORT + " tells it already",
          "Remove one of them");
    }
    if (program.stopsWithin().compareTo(Duration.ofSeconds(1)) < 0) {
      section.problem("stops-within", "it is less than a second", "Give at least \"1s\"");
    }
    section.end();
    return program;
  }

  private void misspelt(String placeholder) {
    Nearest.to(placeholder, Program.PLACEHOLDERS)
        .ifPresent(
            near ->
                section.problem(
                    section.texts("java-options").toString().contains(placeholder)
                        ? "java-options"
                        : "arguments",
                    "'" + placeholder + "' stands for nothing",
                    "Did you mean '" + near + "'?"));
  }

  private static boolean usesSettings(Program program) {
    Stream<Optional<Way>> handed =
        program.dataSources().values().stream()
            .flatMap(data -> Stream.of(data.url(), data.user(), data.password()));
    return program.holds(Program.SETTINGS)
        || Stream.concat(Stream.of(program.port(), program.address()), handed)
            .flatMap(Optional::stream)
            .anyMatch(way -> way.means() == Way.Means.SETTING);
  }

  private boolean speaksHttp() {
    String text = section.text("speaks").orElse(HTTP);
    if (!text.equals(HTTP) && !text.equals(TCP)) {
      section.problem(
          "speaks",
          "'speaks' is \"" + text + "\"",
          "Write \"http\", or \"tcp\" for a program that cannot be asked over HTTP");
    }
    return !text.equals(TCP);
  }

  private boolean restarts() {
    String text = section.text("restart").orElse("on-crash");
    if (!RESTARTS.containsKey(text)) {
      section.problem(
          "restart", "'restart' is \"" + text + "\"", "Write \"on-crash\" or \"never\"");
    }
    return RESTARTS.getOrDefault(text, false);
  }

  private Optional<Program.SettingsFile> settings() {
    Optional<String> name = inside("settings-file");
    Optional<Path> copied =
        section.text("settings-from").map(section.folder("settings-from")::resolve);
    if (name.isEmpty() && copied.isPresent()) {
      name = Optional.of(copied.get().getFileName().toString());
    }
    name.filter(text -> !ENDINGS.contains(text.substring(text.lastIndexOf('.') + 1)))
        .ifPresent(
            text ->
                section.problem(
                    section.has("settings-file") ? "settings-file" : "settings-from",
                    "'" + text + "' is no settings file that is known here",
                    "Its name ends in ." + String.join(", .", ENDINGS)));
    return name.map(text -> new Program.SettingsFile(text, copied));
  }

  /** A path that stays inside the service's folder. */
  private Optional<String> inside(String key) {
    Optional<String> text = section.text(key);
    if (text.isPresent()) {
      Path path = Path.of(text.get()).normalize();
      if (path.isAbsolute() || path.startsWith("..") || path.toString().isEmpty()) {
        section.problem(
            key,
            "'" + text.get() + "' does not lead into the service's folder",
            "Write a path below it, like \"data\"");
        return Optional.empty();
      }
      return Optional.of(path.toString());
    }
    return text;
  }

  private Map<String, Program.Handed> handed() {
    Section all = section.section("datasource");
    List<String> known = dataSources.stream().map(DataSource::jndiName).toList();
    Map<String, Program.Handed> handed = new LinkedHashMap<>();
    for (String name : all.keys()) {
      Section inner = all.section(name);
      if (!known.contains(name)) {
        all.problem(
            name,
            "there is no [datasource.\"" + name + "\"]",
            known.isEmpty() ? "Describe it" : Section.fixFor(name, known));
      }
      Optional<Way> password = way(inner, "password");
      if (password.filter(way -> way.means().isOpen()).isPresent()) {
        inner.problem(
            "password",
            "everybody on the machine can read arguments and system properties",
            "Hand it over as a variable or a setting");
      }
      handed.put(name, new Program.Handed(way(inner, "url"), way(inner, "user"), password));
      inner.end();
    }
    return handed;
  }

  private static Optional<Way> way(Section section, String key) {
    if (!section.has(key)) {
      return Optional.empty();
    }
    if (section.value(key).filter(value -> !(value instanceof TomlTable)).isPresent()) {
      section.problem(
          key,
          "'" + key + "' does not say by what it is told",
          "Write it like " + key + " = { argument = \"--" + key + "={value}\" }");
      return Optional.empty();
    }
    Section inner = section.topmost(key);
    List<Way> ways =
        Arrays.stream(Way.Means.values())
            .filter(means -> inner.has(means.key()))
            .flatMap(means -> inner.text(means.key()).map(text -> new Way(means, text)).stream())
            .toList();
    if (ways.size() != 1 && !inner.isEmpty()) {
      section.problem(
          key,
          "'" + key + "' takes one of argument, property, variable and setting",
          "Write it like " + key + " = { argument = \"--" + key + "={value}\" }");
    }
    inner.end();
    return ways.isEmpty() ? Optional.empty() : Optional.of(ways.get(0));
  }
}

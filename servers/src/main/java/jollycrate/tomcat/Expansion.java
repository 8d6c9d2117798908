package jollycrate.tomcat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import jollycrate.file.Placeholder;
import jollycrate.server.Server;

/**
 * Replaces {@code ${name}} and {@code ${name:-default}} as Tomcat does when it reads its
 * configuration: by system properties, to which {@code conf/catalina.properties} adds. What is not
 * known stays as it is written.
 */
final class Expansion {
  private static final String DEFAULT = ":-";

  private final Map<String, String> properties;

  private Expansion(Map<String, String> properties) {
    this.properties = properties;
  }

  /**
   * For one server.
   *
   * @param arguments of its running process, which may define properties
   */
  static Expansion of(Server server, Map<Path, byte[]> texts, List<String> arguments) {
    Map<String, String> properties = new HashMap<>();
    Properties written = new Properties();
    try {
      written.load(new ByteArrayInputStream(texts.getOrDefault(properties(server), new byte[0])));
    } catch (IOException | IllegalArgumentException damaged) {
      written.clear();
    }
    written.forEach((key, value) -> properties.put(key.toString(), value.toString()));
    define(properties, server.runtime().jvm().options());
    define(properties, arguments);
    TomcatProcesses.ownProperties(server).forEach(properties::put);
    return new Expansion(properties);
  }

  static Path properties(Server server) {
    return server.folder().resolve("conf/catalina.properties");
  }

  private static void define(Map<String, String> properties, List<String> arguments) {
    for (String argument : arguments) {
      int equals = argument.indexOf('=');
      if (argument.startsWith("-D") && equals > 0) {
        properties.put(argument.substring(2, equals), argument.substring(equals + 1));
      }
    }
  }

  String of(String text) {
    StringBuilder expanded = new StringBuilder();
    int at = 0;
    Optional<Placeholder> next = Placeholder.in(text, at);
    while (next.isPresent()) {
      Placeholder found = next.get();
      String written = text.substring(found.start(), found.end());
      expanded.append(text, at, found.start()).append(value(found.inside()).orElse(written));
      at = found.end();
      next = Placeholder.in(text, at);
    }
    return expanded.append(text, at, text.length()).toString();
  }

  private Optional<String> value(String inside) {
    int colon = inside.indexOf(DEFAULT);
    Optional<String> otherwise =
        colon < 0 ? Optional.empty() : Optional.of(inside.substring(colon + DEFAULT.length()));
    String name = colon < 0 ? inside : inside.substring(0, colon);
    return Optional.ofNullable(properties.get(name)).or(() -> otherwise);
  }
}

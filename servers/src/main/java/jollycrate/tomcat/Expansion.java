package jollycrate.tomcat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.server.Server;

/**
 * Replaces {@code ${name}} and {@code ${name:-default}} as Tomcat does when it reads its
 * configuration: by system properties, to which {@code conf/catalina.properties} adds. What is not
 * known stays as it is written.
 */
final class Expansion {
  private static final Pattern REFERENCE = Pattern.compile("\\$\\{([^}:]+)(?::-([^}]*))?}");

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
    Matcher reference = REFERENCE.matcher(text);
    return reference.replaceAll(
        found ->
            Matcher.quoteReplacement(
                properties.getOrDefault(
                    found.group(1), found.group(2) == null ? found.group() : found.group(2))));
  }
}

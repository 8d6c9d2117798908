package jollycrate.standalone;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Properties;

/**
 * What is told from outside: an argument {@code --port=8081} before a system property {@code
 * standalone.port} before a variable {@code STANDALONE_PORT} before what was packed.
 */
final class Options {
  private static final List<String> KNOWN = Arrays.asList("port", "path", "bind", "help");

  private final Properties packed;
  private final Properties given = new Properties();

  Options(Properties packed, String[] arguments) {
    this.packed = packed;
    for (String argument : arguments) {
      int equals = argument.indexOf('=');
      String key = argument.substring(argument.startsWith("--") ? 2 : 0, end(argument, equals));
      if (!argument.startsWith("--") || !KNOWN.contains(key)) {
        throw new Refusal("Cannot understand '" + argument + "'. " + usage());
      }
      given.setProperty(key, equals < 0 ? "" : argument.substring(equals + 1));
    }
  }

  private static int end(String argument, int equals) {
    return equals < 0 ? argument.length() : equals;
  }

  static String usage() {
    return "Known: --port=8080 --path=/name --bind=127.0.0.1, also as system properties standalone.port,"
        + " standalone.path, standalone.bind and as variables STANDALONE_PORT, STANDALONE_PATH, STANDALONE_BIND";
  }

  boolean asksForHelp() {
    return given.containsKey("help");
  }

  int port() {
    String text = text("port", "8080");
    try {
      int port = Integer.parseInt(text);
      if (port >= 0 && port <= 65535) {
        return port;
      }
    } catch (NumberFormatException e) {
      throw noPort(text);
    }
    throw noPort(text);
  }

  private static Refusal noPort(String text) {
    return new Refusal("Cannot listen on '" + text + "': a port is a number from 0 to 65535");
  }

  /** Empty for the root, else with a slash before it. */
  String path() {
    String path = text("path", "/");
    if (path.equals("/") || path.isEmpty()) {
      return "";
    }
    if (!path.startsWith("/") || path.endsWith("/")) {
      throw new Refusal("Cannot use '" + path + "' as a context path: write it like /name");
    }
    return path;
  }

  String bind() {
    return text("bind", "");
  }

  private String text(String key, String otherwise) {
    String variable = System.getenv("STANDALONE_" + key.toUpperCase(java.util.Locale.ROOT));
    String property = System.getProperty("standalone." + key);
    String value = given.getProperty(key);
    if (value != null) {
      return value;
    }
    if (property != null) {
      return property;
    }
    return variable != null ? variable : packed.getProperty(key, otherwise);
  }

  /** Keys of the packed settings that begin so, without that beginning, up to the next dot. */
  List<String> names(String prefix) {
    List<String> names = new ArrayList<>();
    for (String key : packed.stringPropertyNames()) {
      if (key.startsWith(prefix)) {
        String name = key.substring(prefix.length(), key.lastIndexOf('.'));
        if (!names.contains(name)) {
          names.add(name);
        }
      }
    }
    names.sort(null);
    return names;
  }

  String packed(String key) {
    return packed.getProperty(key, "");
  }
}

package jollycrate.stock;

import java.nio.file.Path;
import java.util.Locale;
import java.util.Optional;

/**
 * A JDBC URL changed so that a connection makes no database and runs no script.
 *
 * @param file a file that must be there before a connection is tried
 */
record HarmlessUrl(String url, Optional<Path> file) {
  private static final String SQLITE = "jdbc:sqlite:";

  static HarmlessUrl of(String url) {
    String low = url.toLowerCase(Locale.ROOT);
    if (low.startsWith("jdbc:h2:")) {
      return plain(h2(url, low));
    }
    if (low.startsWith("jdbc:hsqldb:file:") || low.startsWith("jdbc:hsqldb:./")) {
      return plain(low.contains("ifexists") ? url : url + ";ifexists=true");
    }
    if (low.startsWith("jdbc:derby:")) {
      return plain(url.replaceAll("(?i);create=true", ""));
    }
    if (low.startsWith(SQLITE) && !low.startsWith(SQLITE + ":")) {
      String file = url.substring(SQLITE.length()).replaceFirst("\\?.*", "");
      return new HarmlessUrl(url, Optional.of(Path.of(file)));
    }
    return plain(url);
  }

  private static HarmlessUrl plain(String url) {
    return new HarmlessUrl(url, Optional.empty());
  }

  private static String h2(String url, String low) {
    boolean remote = low.startsWith("jdbc:h2:tcp:") || low.startsWith("jdbc:h2:ssl:");
    String calm = url.replaceAll("(?i);INIT=(?:[^;\\\\]++|\\\\;?)*+", "");
    if (remote || low.startsWith("jdbc:h2:mem:")) {
      return calm;
    }
    String existing = low.contains(";ifexists=") ? "" : ";IFEXISTS=TRUE";
    boolean mayWrite = low.contains(";auto_server=true") || low.contains(";access_mode_data=");
    return calm + existing + (mayWrite ? "" : ";ACCESS_MODE_DATA=r");
  }
}

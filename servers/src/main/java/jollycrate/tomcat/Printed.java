package jollycrate.tomcat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.util.Optional;
import java.util.Properties;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;

/** Whether what a Tomcat prints can be read where its service manager keeps it. */
final class Printed {
  private static final String FORMATTER = "java.util.logging.ConsoleHandler.formatter";
  private static final String READ = "org.apache.juli.OneLineFormatter";

  private Printed() {}

  /** Why it cannot: as Debian's package has it, nothing but the message goes to the journal. */
  static Optional<Wanted.Refused> unreadable(Stock stock) {
    Path file = stock.server().folder().resolve("conf/logging.properties");
    byte[] bytes = stock.texts().get(file);
    if (stock.server().steering().unit().isEmpty() || bytes == null) {
      return Optional.empty();
    }
    String formatter = formatter(bytes);
    return formatter.equals(READ)
        ? Optional.empty()
        : Optional.of(
            new Wanted.Refused(
                "conf/logging.properties",
                "what it prints to the journal has no stamp and no level"
                    + (formatter.isEmpty() ? "" : " (" + formatter + ")")
                    + ", so nobody could read what becomes of this",
                "Write " + FORMATTER + " = " + READ + " there, and restart it"));
  }

  private static String formatter(byte[] bytes) {
    Properties properties = new Properties();
    try {
      properties.load(new ByteArrayInputStream(bytes));
    } catch (IOException | IllegalArgumentException damaged) {
      return "";
    }
    return properties.getProperty(FORMATTER, "").strip();
  }
}

package jollycrate.tomcat;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.trace.KnownException;
import jollycrate.trace.StackTrace;

/**
 * What a failure means, where the exception alone does not say it.
 *
 * @param what empty: the exception's own words will do
 */
record KnownFailure(String what, String next) {
  private static final Pattern LISTENER =
      Pattern.compile("listener instance of class \\[([^\\]]+)]");
  private static final Pattern CONNECTOR = Pattern.compile("-(\\d+)\"?]");
  private static final Pattern PLACE =
      Pattern.compile("lineNumber: (\\d+); columnNumber: (\\d+); (.*)");

  static KnownFailure of(LogRecord record, StackTrace.Thrown root) {
    return switch (root.simpleType()) {
      case "BindException" ->
          new KnownFailure(
              "a port of the server is taken" + connector(record),
              "End that program, or give the server another port in servers.toml");
      case "SAXParseException" -> xml(root.message());
      default ->
          KnownException.of(root)
              .map(known -> new KnownFailure(known.what(), known.next()))
              .orElseGet(() -> other(record, root.simpleType(), root.message()));
    };
  }

  private static KnownFailure other(LogRecord record, String simple, String message) {
    Matcher listener = LISTENER.matcher(record.message());
    if (listener.find()) {
      String words = message.isEmpty() ? simple : simple + ": " + message;
      return new KnownFailure(
          "listener " + listener.group(1) + " threw " + words,
          "Fix the listener, or what it needs to start");
    }
    return new KnownFailure("", "");
  }

  private static String connector(LogRecord record) {
    Matcher port = CONNECTOR.matcher(record.message());
    return port.find() ? " (" + port.group(1) + ")" : "";
  }

  private static KnownFailure xml(String message) {
    Matcher place = PLACE.matcher(message);
    return place.find()
        ? new KnownFailure(
            "a descriptor is not well-formed: line "
                + place.group(1)
                + ", column "
                + place.group(2)
                + ": "
                + place.group(3),
            "Fix WEB-INF/web.xml there")
        : new KnownFailure("a descriptor is not well-formed: " + message, "Fix WEB-INF/web.xml");
  }
}

package jollycrate.tomcat;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

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

  static KnownFailure of(LogRecord record, String type, String message) {
    String simple = type.substring(type.lastIndexOf('.') + 1);
    return switch (simple) {
      case "ClassNotFoundException", "NoClassDefFoundError" ->
          new KnownFailure(
              "class " + message.replace('/', '.') + " is missing",
              "Add the library that holds it to 'libs' in [pack]");
      case "UnsupportedClassVersionError" ->
          new KnownFailure(
              "a class was compiled for a newer Java than the server's: " + message,
              "Compile with a lower --release, or give the server another 'java'");
      case "BindException" ->
          new KnownFailure(
              "a port of the server is taken" + connector(record),
              "End that program, or give the server another port in servers.toml");
      case "SAXParseException" -> xml(message);
      case "OutOfMemoryError" ->
          new KnownFailure(
              "the server ran out of memory (" + message + ")",
              "Give it more 'memory' in servers.toml");
      case "ZipException" ->
          new KnownFailure("an archive cannot be read: " + message, "Build it again");
      case "ConnectException", "CommunicationsException", "PSQLException" ->
          new KnownFailure(
              "the database does not answer: " + message, "Start the database, or mend 'url'");
      default -> other(record, simple, message);
    };
  }

  private static KnownFailure other(LogRecord record, String simple, String message) {
    Matcher listener = LISTENER.matcher(record.message());
    if (listener.find()) {
      String words = message.isEmpty() ? simple : simple + ": " + message;
      return new KnownFailure(
          "listener " + listener.group(1) + " threw " + words,
          "Mend the listener, or what it needs to start");
    }
    return new KnownFailure("", "Mend the application there");
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
            "Mend WEB-INF/web.xml there")
        : new KnownFailure("a descriptor is not well-formed: " + message, "Mend WEB-INF/web.xml");
  }
}

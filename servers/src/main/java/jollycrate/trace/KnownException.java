package jollycrate.trace;

import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** What an exception means, where it does not say so by itself. */
public record KnownException(String what, String next) {
  private static final String NOT_INITIALIZED = "Could not initialize class ";
  private static final Pattern CLASS_NAME = Pattern.compile("[\\w$]+([./][\\w$]+){0,60}");
  private static final Pattern SERVLET = Pattern.compile("(javax|jakarta)\\.servlet\\.");
  private static final Pattern CAST_TO_SERVLET =
      Pattern.compile("cannot be cast to (?:class )?(javax|jakarta)\\.servlet\\.");

  /** Packages of modules that Java 11 no longer has (JEP 320). */
  private static final Pattern REMOVED =
      Pattern.compile("javax\\.(xml\\.(bind|ws|soap)|jws|activation)\\.|org\\.omg\\.");

  /** Servers by the packages of their own classes, which no library holds. */
  private static final Map<String, String> SERVERS =
      Map.of(
          "org.apache.catalina.", "a Tomcat",
          "org.apache.coyote.", "a Tomcat",
          "org.eclipse.jetty.server.", "a Jetty",
          "org.eclipse.jetty.webapp.", "a Jetty",
          "org.eclipse.jetty.security.", "a Jetty",
          "org.jboss.as.", "a WildFly",
          "io.undertow.", "a WildFly",
          "com.ibm.ws", "an Open Liberty",
          "com.sun.enterprise.", "a GlassFish",
          "org.glassfish.", "a GlassFish");

  private static final Pattern LISTENER =
      Pattern.compile("(.*)\\.contextInitialized\\(.*", Pattern.DOTALL);

  private static final Pattern PLACE =
      Pattern.compile("lineNumber: (\\d+); columnNumber: (\\d+); (.*)");

  /** The meaning of an exception, if it is known. */
  public static Optional<KnownException> of(StackTrace.Thrown thrown) {
    String message = thrown.message();
    return switch (thrown.simpleType()) {
      case "ClassNotFoundException", "NoClassDefFoundError" -> missing(message);
      case "ClassCastException" -> cast(message);
      case "UnsupportedClassVersionError" ->
          known(
              "a class was compiled for a newer Java than the server's: " + message,
              "Compile with a lower --release, or give the server another 'java'");
      case "OutOfMemoryError" ->
          known("it ran out of memory (" + message + ")", "Give it more 'memory' in servers.toml");
      case "ZipException" -> known("an archive cannot be read: " + message, "Build it again");
      case "ConnectException", "CommunicationsException", "PSQLException" ->
          known("the database does not answer: " + message, "Start the database, or fix 'url'");
      default -> Optional.empty();
    };
  }

  /** What these say may be a class name, or a whole sentence. */
  private static Optional<KnownException> missing(String message) {
    if (message.startsWith(NOT_INITIALIZED)) {
      return known(
          "class "
              + message.substring(NOT_INITIALIZED.length())
              + " could not be set up when it was first used",
          "Look further up in the log for the error that it threw then");
    }
    if (!CLASS_NAME.matcher(message).matches()) {
      return Optional.empty();
    }
    String name = message.replace('/', '.');
    Matcher servlet = SERVLET.matcher(name);
    if (servlet.lookingAt()) {
      return wrongApi(servlet.group(1));
    }
    Optional<String> inside =
        SERVERS.entrySet().stream()
            .filter(server -> name.startsWith(server.getKey()))
            .map(Map.Entry::getValue)
            .findFirst();
    if (inside.isPresent()) {
      return known(
          "class " + name + " is missing: it is part of " + inside.get() + " itself",
          "The application is made to run inside "
              + inside.get()
              + ": deliver it to one, or take a release for this server");
    }
    return REMOVED.matcher(name).lookingAt()
        ? known(
            "class " + name + " is missing: Java has it no longer since release 11",
            "Add a library that holds it to WEB-INF/lib, or run the server on Java 8")
        : known(
            "class " + name + " is missing",
            "Add the library that holds it to WEB-INF/lib; where jolly packs it, to 'libs' in [pack]");
  }

  private static Optional<KnownException> cast(String message) {
    Matcher target = CAST_TO_SERVLET.matcher(message);
    return target.find()
        ? wrongApi(target.group(1).equals("javax") ? "jakarta" : "javax")
        : Optional.empty();
  }

  private static Optional<KnownException> wrongApi(String needed) {
    String other = needed.equals("javax") ? "jakarta" : "javax";
    return known(
        "the application is made for "
            + needed
            + ".servlet, and the server offers "
            + other
            + ".servlet",
        "Deliver a release made for "
            + other
            + ".servlet, or take a server that offers "
            + needed
            + ".servlet (Tomcat "
            + (needed.equals("javax") ? "9" : "10 or later")
            + ", or Jetty 12.1)");
  }

  /**
   * A port of the server is somebody else's.
   *
   * @param port empty when it is not told
   */
  public static KnownException portTaken(String port) {
    return new KnownException(
        "a port of the server is taken" + (port.isEmpty() ? "" : " (" + port + ")"),
        "End that program, or give the server another port in servers.toml");
  }

  /** A listener of an application threw something. */
  public static KnownException listener(String type, StackTrace.Thrown thrown) {
    return new KnownException(
        "listener " + type + " threw " + thrown.told(),
        "Fix the listener, or what it needs to start");
  }

  /** The same, where one of the frames tells which listener. */
  public static Optional<KnownException> listenerIn(StackTrace.Thrown thrown) {
    return thrown.frames().stream()
        .map(LISTENER::matcher)
        .filter(Matcher::matches)
        .findFirst()
        .map(frame -> listener(frame.group(1), thrown));
  }

  /** A descriptor of an application cannot be parsed. */
  public static KnownException brokenDescriptor(StackTrace.Thrown thrown) {
    String message = thrown.message();
    Matcher place = PLACE.matcher(message);
    return place.find()
        ? new KnownException(
            "a descriptor is not well-formed: line "
                + place.group(1)
                + ", column "
                + place.group(2)
                + ": "
                + place.group(3),
            "Fix WEB-INF/web.xml there")
        : new KnownException("a descriptor is not well-formed: " + message, "Fix WEB-INF/web.xml");
  }

  private static Optional<KnownException> known(String what, String next) {
    return Optional.of(new KnownException(what, next));
  }
}

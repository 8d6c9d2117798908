package jollycrate.trace;

import java.util.Optional;

/** What an exception means, where it does not say so by itself. */
public record KnownException(String what, String next) {

  /** The meaning of an exception, if it is known. */
  public static Optional<KnownException> of(StackTrace.Thrown thrown) {
    String message = thrown.message();
    return switch (thrown.simpleType()) {
      case "ClassNotFoundException", "NoClassDefFoundError" ->
          known(
              "class " + message.replace('/', '.') + " is missing",
              "Add the library that holds it to 'libs' in [pack]");
      case "UnsupportedClassVersionError" ->
          known(
              "a class was compiled for a newer Java than the server's: " + message,
              "Compile with a lower --release, or give the server another 'java'");
      case "OutOfMemoryError" ->
          known("it ran out of memory (" + message + ")", "Give it more 'memory' in servers.toml");
      case "ZipException" -> known("an archive cannot be read: " + message, "Build it again");
      case "ConnectException", "CommunicationsException", "PSQLException" ->
          known("the database does not answer: " + message, "Start the database, or mend 'url'");
      default -> Optional.empty();
    };
  }

  private static Optional<KnownException> known(String what, String next) {
    return Optional.of(new KnownException(what, next));
  }
}

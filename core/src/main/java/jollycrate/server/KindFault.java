package jollycrate.server;

import java.net.URL;
import java.nio.file.Path;
import java.security.CodeSource;
import java.util.Arrays;
import java.util.Optional;

/** Whether a fault is that of a server kind that somebody put beside the program. */
public final class KindFault {
  /** The folder beside the program that such kinds stand in. */
  public static final String FOLDER = "kinds";

  private KindFault() {}

  /** The archive of the kind and its class that threw; empty for a fault of ours. */
  public static Optional<String> of(Throwable fault) {
    return Arrays.stream(fault.getStackTrace())
        .flatMap(frame -> archive(frame).stream())
        .findFirst()
        .or(() -> Optional.ofNullable(fault.getCause()).flatMap(KindFault::of));
  }

  private static Optional<String> archive(StackTraceElement frame) {
    try {
      CodeSource source =
          Class.forName(frame.getClassName(), false, KindFault.class.getClassLoader())
              .getProtectionDomain()
              .getCodeSource();
      return Optional.ofNullable(source)
          .map(CodeSource::getLocation)
          .map(URL::getPath)
          .map(Path::of)
          .filter(file -> file.getParent() != null && file.getParent().endsWith(FOLDER))
          .map(
              file ->
                  "server kind "
                      + FOLDER
                      + "/"
                      + file.getFileName()
                      + " at "
                      + frame.getClassName()
                      + ":"
                      + frame.getLineNumber());
    } catch (ClassNotFoundException | LinkageError | SecurityException notFound) {
      return Optional.empty();
    }
  }
}

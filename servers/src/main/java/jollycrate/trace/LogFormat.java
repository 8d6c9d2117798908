package jollycrate.trace;

import java.util.List;
import java.util.Optional;

/** How a kind of server writes its log. */
public interface LogFormat {
  /** The records in a text, oldest first. */
  List<LogRecord> records(String log);

  /** What a record says, as people read it. */
  default String told(LogRecord record) {
    return record.message();
  }

  /** Packages of the server's own classes, besides those that are known here. */
  default List<String> serverPackages() {
    return List.of();
  }

  /** What a failure means there, where its record says more than the exception alone. */
  Optional<KnownException> known(LogRecord record, StackTrace.Thrown root);
}

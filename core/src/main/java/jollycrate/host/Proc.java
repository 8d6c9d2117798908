package jollycrate.host;

import java.util.List;
import java.util.Optional;

/**
 * The files of {@code /proc} (proc(5)) on a host, by paths relative to it. A process may end at any
 * moment; what it had is not there then.
 */
public interface Proc {
  /** What stands in a file; empty when there is none. */
  Optional<String> text(String file);

  /** Where a link leads; empty when there is none. */
  String target(String link);

  /** Names in a folder; none when there is no such folder. */
  List<String> children(String folder);

  /** Something that is there but may not be read. */
  final class Unreadable extends RuntimeException {
    private static final long serialVersionUID = 1L;

    /** Of a path. */
    public Unreadable(String file) {
      super("'" + file + "' may not be read");
    }
  }

  /** What somebody wants to see of it. */
  enum Part {
    /** State and kin of every process. */
    STATES,
    /** Arguments of every process. */
    ARGUMENTS,
    /** Open files of every process. */
    OPEN_FILES,
    /** Memory of every process. */
    MEMORY,
    /** Tables of TCP sockets. */
    SOCKETS
  }
}

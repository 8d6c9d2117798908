package jollycrate.standalone;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;

/** A server inside the archive, behind a class loader of its own. */
public interface StandaloneServer {
  /** What the server runs. */
  final class Wanted {
    /** The archive itself. */
    public final Path archive;

    /** A folder for the server's own files. */
    public final Path folder;

    /** To listen on; 0 for any. */
    public final int port;

    /** Address to listen on; empty for all. */
    public final String bind;

    /** Context path; empty for the root. */
    public final String path;

    /** Data sources by JNDI name, as url, user, password, max and wait (milliseconds). */
    public final Map<String, Map<String, String>> dataSources;

    /** Passwords by user. */
    public final Map<String, String> users;

    /** Users by role. */
    public final Map<String, List<String>> roles;

    Wanted(
        Path archive,
        Path folder,
        Options options,
        Map<String, Map<String, String>> dataSources,
        Map<String, String> users,
        Map<String, List<String>> roles) {
      this.archive = archive;
      this.folder = folder;
      this.port = options.port();
      this.bind = options.bind();
      this.path = options.path();
      this.dataSources = dataSources;
      this.users = users;
      this.roles = roles;
    }
  }

  /**
   * Starts; returns when the application answers.
   *
   * @return the port it listens on
   * @throws Refusal when it does not come up
   */
  int start(Wanted wanted);

  /** Stops. */
  void stop();
}

package jollycrate.watch;

import com.fasterxml.jackson.annotation.JsonUnwrapped;

/**
 * What an act is about.
 *
 * @param act deploy, rollback, undeploy, check or recover
 */
public record Aim(String act, @JsonUnwrapped Release release, @JsonUnwrapped Place place) {

  /**
   * Which release.
   *
   * @param version may be empty
   * @param earlier version of the release that stood there before; empty for none
   * @param digest SHA-256 of the artifact; empty where none is delivered
   * @param size of the artifact in bytes
   * @param revision of its source, as far as it is known
   */
  public record Release(
      String application,
      String version,
      String earlier,
      String digest,
      long size,
      String revision) {
    /** The application with its version. */
    public String name() {
      return (application + " " + version).strip();
    }
  }

  /**
   * Where it goes.
   *
   * @param server name of the server
   * @param kind label of its kind and version
   * @param java feature release of its Java
   * @param folder its own folder
   * @param log the log that it writes; empty where each program has one of its own
   * @param address where people open the application; empty when that is not known
   */
  public record Place(
      String server, String kind, int java, String folder, String log, String address) {}
}

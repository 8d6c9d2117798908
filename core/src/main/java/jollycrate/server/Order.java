package jollycrate.server;

import java.util.Map;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.artifact.Artifact;
import jollycrate.secret.Reference;

/**
 * What is to stand on a server.
 *
 * @param version of the release, may be empty
 * @param onAdminPort whether it goes to the admin listener
 * @param databasePasswords by JNDI name
 * @param userPasswords by user name, of users to be created
 * @param values of every further reference in the application's description
 * @param unfolded where the artifact stands unpacked, to be run from there
 */
public record Order(
    Application application,
    Artifact artifact,
    String version,
    boolean onAdminPort,
    Map<String, String> databasePasswords,
    Map<String, String> userPasswords,
    Map<Reference, String> values,
    Optional<Unfolded> unfolded) {

  /**
   * The version as it may stand in the name of a file, with a hyphen before it; empty when there is
   * none, or when what a manifest says is too long or holds something else than a version does.
   */
  public String versionInNames() {
    return version.matches("[A-Za-z0-9][A-Za-z0-9._+-]{0,31}") ? "-" + version : "";
  }

  /** The same, run from where the artifact stands unpacked. */
  public Order from(Unfolded place) {
    return new Order(
        application,
        artifact,
        version,
        onAdminPort,
        databasePasswords,
        userPasswords,
        values,
        Optional.of(place));
  }
}

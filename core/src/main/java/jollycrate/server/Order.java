package jollycrate.server;

import java.util.Map;
import jollycrate.app.Application;
import jollycrate.artifact.Artifact;

/**
 * What is to stand on a server.
 *
 * @param version of the release, may be empty
 * @param onAdminPort whether it goes to the admin listener
 * @param databasePasswords by JNDI name
 * @param userPasswords by user name, of users to be created
 */
public record Order(
    Application application,
    Artifact artifact,
    String version,
    boolean onAdminPort,
    Map<String, String> databasePasswords,
    Map<String, String> userPasswords) {}

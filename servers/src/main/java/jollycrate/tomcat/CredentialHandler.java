package jollycrate.tomcat;

import jollycrate.hosting.PasswordHash;

/** The element by which a Realm compares with salted hashes. */
final class CredentialHandler {
  private CredentialHandler() {}

  /**
   * As it is written.
   *
   * @param gap what stands between its name and its further attributes
   */
  static String xml(String gap) {
    return "<CredentialHandler className=\"org.apache.catalina.realm.SecretKeyCredentialHandler\""
        + gap
        + "algorithm=\""
        + PasswordHash.ALGORITHM
        + "\" iterations=\""
        + PasswordHash.ITERATIONS
        + "\" keyLength=\""
        + PasswordHash.KEY_BITS
        + "\" saltLength=\""
        + PasswordHash.SALT_BYTES
        + "\"/>";
  }
}

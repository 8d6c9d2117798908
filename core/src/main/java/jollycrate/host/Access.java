package jollycrate.host;

/**
 * Who may do what with a file.
 *
 * @param mode as nine letters, {@code rwxr-x---}
 * @param owner user name
 * @param group group name
 */
public record Access(String mode, String owner, String group) {

  /** The same owner and group with another mode. */
  public Access with(String otherMode) {
    return new Access(otherMode, owner, group);
  }
}

package jollycrate.host;

/**
 * Who may do what with a file.
 *
 * @param mode as nine letters, {@code rwxr-x---}
 * @param owner user name
 * @param group group name
 */
public record Access(String mode, String owner, String group) {
  /** Spelled out: a method that Java derives for a record is made at run time, at each start. */
  @Override
  public boolean equals(Object other) {
    return other instanceof Access access
        && mode.equals(access.mode)
        && owner.equals(access.owner)
        && group.equals(access.group);
  }

  @Override
  public int hashCode() {
    return (mode.hashCode() * 31 + owner.hashCode()) * 31 + group.hashCode();
  }

  /** The same owner and group with another mode. */
  public Access with(String otherMode) {
    return new Access(otherMode, owner, group);
  }
}

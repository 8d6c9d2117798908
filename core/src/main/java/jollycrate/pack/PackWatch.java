package jollycrate.pack;

/** Is told how far packing is. */
@FunctionalInterface
public interface PackWatch {
  /** Nobody watches. */
  PackWatch NONE = (file, done, all) -> {};

  /**
   * Some more is done.
   *
   * @param file name of the archive
   * @param done bytes read
   * @param all bytes to read
   */
  void packed(String file, long done, long all);
}

package jollycrate.artifact;

/** Signatures, lengths and limits of the parts of an archive (APPNOTE 6.3.10, section 4.3). */
public final class ZipFormat {
  /** Signature of a local header. */
  public static final int LOCAL = 0x04034b50;

  /** Length of one without name and extra fields. */
  public static final int LOCAL_SIZE = 30;

  /** Signature of an entry of the directory. */
  public static final int MEMBER = 0x02014b50;

  /** Length of one without name, extra fields and comment. */
  public static final int MEMBER_SIZE = 46;

  /** Signature of the end of the directory. */
  public static final int END = 0x06054b50;

  /** Length of it without a comment. */
  public static final int END_SIZE = 22;

  /** Signature of the end of a directory with zip64 extensions. */
  public static final int END_64 = 0x06064b50;

  /** Length of it. */
  public static final int END_64_SIZE = 56;

  /** Signature of what tells where that stands. */
  public static final int LOCATOR = 0x07064b50;

  /** Length of it. */
  public static final int LOCATOR_SIZE = 20;

  /** Flag of names in UTF-8. */
  public static final int UTF_8 = 0x800;

  /** The version that is needed to read entries as they usually are. */
  public static final int PLAIN_VERSION = 20;

  /** The version that is needed to read zip64 extensions. */
  public static final int ZIP_64_VERSION = 45;

  /** Whoever made it tells rights as Unix does. */
  public static final int UNIX = 3 << 8;

  /** Type and rights of a file. */
  public static final int FILE = 0100644;

  /** A number of entries, and more, that zip64 extensions tell. */
  public static final int MANY = 0xFFFF;

  /** A position or length, and more, that zip64 extensions tell. */
  public static final long NONE = 0xFFFFFFFFL;

  private ZipFormat() {}
}

package jollycrate.artifact;

/**
 * An entry of an archive as its central directory tells (APPNOTE 6.3.10, section 4.3.12).
 *
 * @param name path inside, with {@code /}
 * @param method 0 stored, 8 deflated
 * @param flags general purpose bits
 * @param crc CRC-32 of the content
 * @param compressed bytes in the archive
 * @param size bytes of the content
 * @param headerAt position of its local header
 * @param unixMode file type and rights, 0 when not told
 */
public record ZipMember(
    String name,
    int method,
    int flags,
    long crc,
    long compressed,
    long size,
    long headerAt,
    int unixMode) {
  /** Method of content that stands as it is. */
  public static final int STORED = 0;

  /** Method of content that is deflated (RFC 1951). */
  public static final int DEFLATED = 8;

  /** Whether it is a folder. */
  public boolean isFolder() {
    return name.endsWith("/");
  }

  /** Whether its content is encrypted. */
  public boolean isEncrypted() {
    return (flags & 1) != 0;
  }

  /** Whether its path leads out of the folder it would be unpacked to. */
  public boolean escapes() {
    return name.startsWith("/")
        || name.contains("\\")
        || name.contains(":")
        || name.indexOf('\0') >= 0
        || name.contains("..") && ("/" + name + "/").contains("/../");
  }

  /** The last part of its path. */
  public String simpleName() {
    return name.substring(name.lastIndexOf('/') + 1);
  }
}

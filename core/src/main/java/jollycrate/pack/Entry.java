package jollycrate.pack;

/**
 * A file on its way into an archive.
 *
 * @param name path inside, with {@code /}; ends with it for a folder
 * @param part of the archive, as people call it
 * @param executable whether it may be run when the archive is unpacked
 */
record Entry(String name, Source source, String part, boolean executable) {
  boolean isFolder() {
    return name.endsWith("/");
  }
}

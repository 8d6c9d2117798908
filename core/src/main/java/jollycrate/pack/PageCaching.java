package jollycrate.pack;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import jollycrate.artifact.ServletNamespace;
import jollycrate.file.Shipped;
import jollycrate.xml.XmlDocument;

/**
 * A filter that tells browsers to ask for pages each time. Without a word about that they keep a
 * page for a tenth of its age (RFC 9111, section 4.2.2), so a new release would not be seen.
 */
final class PageCaching {
  private static final String CLASSES = "WEB-INF/classes/";
  private static final String DESCRIPTOR = "WEB-INF/web.xml";
  private static final int MOST_LOOKED_AT = 2000;
  private static final int MOST_BYTES = 4 << 20;

  private PageCaching() {}

  static boolean isPage(String name) {
    return name.endsWith(".html") || name.endsWith(".htm");
  }

  /**
   * Adds it to a web application that has pages of its own, when its classes, or else its
   * descriptor, show for which servlet API it is made and fragments are read.
   */
  static void addWhereNeeded(Contents contents) throws IOException {
    boolean pages =
        contents.entries().keySet().stream()
            .anyMatch(
                name ->
                    isPage(name) && !name.startsWith("WEB-INF/") && !name.startsWith("META-INF/"));
    if (!pages) {
      return;
    }
    Entry descriptor = contents.entries().get(DESCRIPTOR);
    String text = descriptor == null ? "" : new String(bytes(descriptor), StandardCharsets.UTF_8);
    ServletNamespace namespace = namespace(contents, text);
    if (text.contains("metadata-complete=\"true\"") || namespace == ServletNamespace.NONE) {
      contents.remark(
          "browsers may keep pages of an earlier release: "
              + (namespace == ServletNamespace.NONE
                  ? "nothing tells for which servlet API this is made, so no filter was added;"
                      + " shape = \"front-end\" adds one"
                  : "web.xml is complete and takes no filter of ours"),
          List.of());
      return;
    }
    add(contents, namespace, "", "");
    contents.remark(
        "WEB-INF/lib/page-caching.jar added (fresh-pages): browsers ask for each page anew",
        List.of());
  }

  /** An old schema says little: servers of the new API read such descriptors too. */
  private static ServletNamespace namespace(Contents contents, String descriptor)
      throws IOException {
    int looked = 0;
    for (Entry entry : contents.entries().values()) {
      if (entry.name().startsWith(CLASSES) && entry.name().endsWith(".class")) {
        ServletNamespace told = ServletNamespace.of(bytes(entry));
        if (told == ServletNamespace.JAVAX || told == ServletNamespace.JAKARTA) {
          return told;
        }
        if (++looked == MOST_LOOKED_AT) {
          break;
        }
      }
    }
    return descriptor.contains("https://jakarta.ee/xml/ns/jakartaee")
        ? ServletNamespace.JAKARTA
        : ServletNamespace.NONE;
  }

  private static byte[] bytes(Entry entry) throws IOException {
    try (InputStream in = entry.source().open()) {
      return in.readNBytes(MOST_BYTES);
    }
  }

  /**
   * Adds it. A web fragment leaves the project's own web.xml, or that there is none, as it is.
   *
   * @param settings path of a settings file, or empty
   * @param fallback page that answers navigations to paths where nothing stands, or empty
   */
  static void add(Contents contents, ServletNamespace api, String settings, String fallback)
      throws IOException {
    String namespace = api.label();
    Map<String, byte[]> parts = new TreeMap<>(InsideParts.of("jollycrate/pages"));
    parts.putAll(InsideParts.of("jollycrate/pages/" + namespace));
    String second =
        fallback.isEmpty()
            ? ""
            : text("fallback")
                .replace("@api@", namespace)
                .replace("@page@", XmlDocument.escape(fallback));
    String fragment =
        text(namespace)
            .replace("@settings@", XmlDocument.escape(settings))
            .replace("@fallback@", second);
    parts.put("META-INF/web-fragment.xml", fragment.getBytes(StandardCharsets.UTF_8));
    contents.add("WEB-INF/lib/page-caching.jar", stored(parts), "page caching");
  }

  private static String text(String name) throws IOException {
    return Shipped.text(PageCaching.class, "/pages/" + name + ".xml");
  }

  private static byte[] stored(Map<String, byte[]> parts) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
      for (Map.Entry<String, byte[]> part : parts.entrySet()) {
        CRC32 crc = new CRC32();
        crc.update(part.getValue());
        ZipEntry entry = new ZipEntry(part.getKey());
        entry.setMethod(ZipEntry.STORED);
        entry.setSize(part.getValue().length);
        entry.setCrc(crc.getValue());
        entry.setTimeLocal(PackRequest.FIXED_TIME);
        zip.putNextEntry(entry);
        zip.write(part.getValue());
      }
    }
    return bytes.toByteArray();
  }
}

package jollycrate.pack;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializationFeature;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import jollycrate.artifact.ServletNamespace;
import jollycrate.json.Json;
import jollycrate.pages.Freshness;
import jollycrate.xml.Splice;

/**
 * Prepares built pages for their place: paths that start from the server's root begin with the
 * context path, settings stand in the page, and browsers ask for pages again.
 */
final class WebPages {
  private static final int MOST_BYTES = 32 << 20;
  private static final ObjectMapper JSON =
      new ObjectMapper().enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS);

  private final PackRequest.Pages pages;
  private final Contents contents;
  private final List<String> rewritten = new ArrayList<>();
  private final List<String> settled = new ArrayList<>();
  private final List<String> missing = new ArrayList<>();
  private final List<String> left = new ArrayList<>();
  private final List<String> inScripts = new ArrayList<>();
  private String built = "";

  WebPages(PackRequest request, Contents contents) {
    this.pages = request.pages();
    this.contents = contents;
  }

  void prepare() throws IOException {
    built = builtFor();
    long assets = 0;
    for (Entry entry : List.copyOf(contents.entries().values())) {
      String name = entry.name();
      if (!name.startsWith("WEB-INF/") && !name.startsWith("META-INF/")) {
        assets += Freshness.isFingerprinted(simple(name)) && !PageCaching.isPage(name) ? 1 : 0;
        prepare(entry);
      }
    }
    settle();
    PageCaching.add(
        contents,
        pages.javax() ? ServletNamespace.JAVAX : ServletNamespace.JAKARTA,
        pages.settingsFile().orElse(""),
        fallback());
    if (!rewritten.isEmpty()) {
      contents.remark(
          Amount.of(rewritten.size(), "path", "paths") + " rewritten for " + pages.path(),
          rewritten);
    }
    if (!missing.isEmpty()) {
      contents.warn("pages ask for files that are not packed", missing);
    }
    if (!left.isEmpty()) {
      contents.remark(
          Amount.of(left.size(), "path was", "paths were")
              + " left as written, as no packed file is named so",
          left);
    }
    if (!inScripts.isEmpty()) {
      contents.warn(
          "scripts ask at the server's root, and the application lives at " + pages.path(),
          inScripts);
    }
    contents.remark(
        "browsers ask for pages each time and keep "
            + Amount.of(assets, "fingerprinted asset", "fingerprinted assets")
            + " for a year",
        List.of());
  }

  /** What the first page that says so was built for. */
  private String builtFor() throws IOException {
    for (Entry entry : contents.entries().values()) {
      if (PageCaching.isPage(entry.name()) && !entry.name().startsWith("WEB-INF/")) {
        String path = BasePath.builtFor(text(entry));
        if (!path.isEmpty()) {
          return path;
        }
      }
    }
    return "";
  }

  /** Whether a path inside leads to a packed file, or to a folder with a first page. */
  private boolean isPacked(String path) {
    String folder = path.isEmpty() || path.endsWith("/") ? path : path + "/";
    return contents.entries().containsKey(path)
        || contents.entries().containsKey(folder + "index.html");
  }

  private String fallback() {
    String page = pages.fallback().orElse("");
    if (!page.isEmpty() && !contents.entries().containsKey(page)) {
      throw new PackException(
          "Cannot use '" + page + "' as the fallback: no such page is packed. Fix 'fallback'");
    }
    if (!page.isEmpty()) {
      contents.remark(page + " answers where nothing stands", List.of());
    }
    return page;
  }

  private static String simple(String name) {
    return name.substring(name.lastIndexOf('/') + 1);
  }

  private void prepare(Entry entry) throws IOException {
    String name = entry.name();
    if (name.endsWith(".js") || name.endsWith(".mjs")) {
      inScripts.addAll(ScriptPaths.of(name, text(entry), pages.path(), this::isPacked));
      return;
    }
    if (!PageCaching.isPage(name) && !name.endsWith(".css")) {
      return;
    }
    String text = text(entry);
    BasePath base = new BasePath(name, text, pages.path(), built, this::isPacked);
    List<Splice> splices =
        new ArrayList<>(PageCaching.isPage(name) ? base.inPage() : base.inStyle());
    rewritten.addAll(base.told());
    missing.addAll(base.missing());
    left.addAll(base.left());
    if (PageCaching.isPage(name)) {
      inScripts.addAll(ScriptPaths.inPage(name, text, pages.path(), this::isPacked));
    }
    if (PageCaching.isPage(name) && !pages.settings().isEmpty()) {
      base.settingsBlock(json())
          .ifPresent(
              splice -> {
                splices.add(splice);
                settled.add(name);
              });
    }
    if (!splices.isEmpty()) {
      replace(entry, Splice.apply(text, splices));
    }
  }

  /** Byte by byte, so that whatever encoding a page has, everything around an edit stays. */
  private static String text(Entry entry) throws IOException {
    try (InputStream in = entry.source().open()) {
      byte[] bytes = in.readNBytes(MOST_BYTES + 1);
      if (bytes.length > MOST_BYTES) {
        throw new PackException(
            "Cannot prepare '"
                + entry.source().place()
                + "': it is larger than "
                + (MOST_BYTES >> 20)
                + " MB. Leave it out, or make it smaller");
      }
      if (bytes.length > 1 && (bytes[0] == (byte) 0xFE || bytes[0] == (byte) 0xFF)) {
        throw new PackException(
            "Cannot prepare '"
                + entry.source().place()
                + "': it is written in UTF-16. Save it as UTF-8");
      }
      return new String(bytes, StandardCharsets.ISO_8859_1);
    }
  }

  private void replace(Entry entry, String text) throws IOException {
    byte[] bytes = text.getBytes(StandardCharsets.ISO_8859_1);
    contents.replace(
        new Entry(
            entry.name(), new Source.OfBytes(bytes, entry.source().place()), entry.part(), false));
  }

  /** In ASCII and without {@code <}, so that it can stand in any page. */
  private String json() {
    try {
      StringBuilder ascii = new StringBuilder();
      JSON.writeValueAsString(pages.settings())
          .chars()
          .forEach(
              c -> {
                if (c > 0x7e || c == '<' || c == '>' || c == '&') {
                  ascii.append(String.format("\\u%04x", c));
                } else {
                  ascii.append((char) c);
                }
              });
      return ascii.toString();
    } catch (JsonProcessingException e) {
      throw new IllegalStateException(e);
    }
  }

  private void settle() throws IOException {
    if (pages.settingsFile().isPresent()) {
      String file = pages.settingsFile().get();
      contents.replace(new Entry(file, new Source.OfBytes(merged(file), file), "settings", false));
      settled.add(file);
    }
    if (!settled.isEmpty()) {
      contents.remark("settings placed into " + String.join(", ", settled), List.of());
    } else if (!pages.settings().isEmpty()) {
      throw new PackException(
          "Cannot place [settings]: no page has the block <script type=\"application/json\" id=\""
              + BasePath.BLOCK
              + "\"></script>. Put it into the page that reads them, or name a file in [pack]:"
              + " settings-file = \"settings.json\"");
    }
  }

  private byte[] merged(String file) throws IOException {
    Map<String, Object> values = new TreeMap<>();
    Entry stands = contents.entries().get(file);
    if (stands != null) {
      try (InputStream in = stands.source().open()) {
        JSON.readTree(in)
            .properties()
            .forEach(field -> values.put(field.getKey(), field.getValue()));
      } catch (JsonProcessingException e) {
        throw new PackException(
            "Cannot place [settings] into '" + stands.source().place() + "': " + Json.fault(e));
      }
    }
    values.putAll(pages.settings());
    return (JSON.writerWithDefaultPrettyPrinter().writeValueAsString(values) + "\n")
        .getBytes(StandardCharsets.UTF_8);
  }
}

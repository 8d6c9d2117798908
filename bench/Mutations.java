import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;

/** Changes files as hostile or broken ones are changed. */
final class Mutations {
  private static final List<String> TOKENS =
      List.of(
          "\"", "'", "<", ">", "&", "]]>", "<!DOCTYPE a [", "<!ENTITY x \"", "<![CDATA[", "<!--",
          "<?x ", "&#0;", "&#x110000;", "\0", "\\u0000", "../", "/", "\\", "http://?:1/", "[[", "]",
          "{", "}", "=", "\n", "é", "\uFEFF", "9999999999999", "-1", "env:", "file:", "1e400",
          "**/", "{a,b", "[z-a]", "%", "%zz", "#", "://", "::", "${x}", "\"\"\"");

  /** What is nested, or only long, when it is repeated. */
  private static final List<String> NESTED =
      List.of("[", "{\"a\":", "- ", "<a>", "a", "((", "a.", "/a", "[[a]]\n", "&", "${");

  private final Random random;

  Mutations(Random random) {
    this.random = random;
  }

  /** Bytes anywhere, or a text inside, or the names of entries. */
  byte[] archive(byte[] bytes) throws IOException {
    if (random.nextInt(3) == 0) {
      return flipped(bytes);
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    Map<String, byte[]> entries = new LinkedHashMap<>();
    try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(bytes))) {
      for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
        entries.put(entry.getName(), in.readAllBytes());
      }
    }
    try (ZipOutputStream zip = new ZipOutputStream(out)) {
      for (Map.Entry<String, byte[]> entry : entries.entrySet()) {
        String name = entry.getKey();
        boolean descriptor = name.endsWith(".xml") || name.endsWith(".MF");
        byte[] content = entry.getValue();
        if (descriptor && random.nextBoolean()) {
          content = text(content);
        } else if (name.endsWith(".class") && random.nextInt(8) == 0) {
          content = flipped(content);
        } else if (random.nextInt(200) == 0) {
          name = TOKENS.get(random.nextInt(TOKENS.size())) + name;
        }
        put(zip, name, content);
      }
    }
    return out.toByteArray();
  }

  private static void put(ZipOutputStream zip, String name, byte[] content) throws IOException {
    ZipEntry entry = new ZipEntry(name);
    CRC32 crc = new CRC32();
    crc.update(content);
    entry.setMethod(ZipEntry.STORED);
    entry.setSize(content.length);
    entry.setCrc(crc.getValue());
    zip.putNextEntry(entry);
    zip.write(content);
  }

  byte[] flipped(byte[] bytes) {
    byte[] all = bytes.clone();
    for (int i = random.nextInt(6); i >= 0 && all.length > 0; i--) {
      boolean nearTheEnd = random.nextBoolean() && all.length > 400;
      int at = nearTheEnd ? all.length - 1 - random.nextInt(400) : random.nextInt(all.length);
      all[at] = (byte) random.nextInt(256);
    }
    return random.nextInt(10) == 0 && all.length > 0
        ? Arrays.copyOf(all, random.nextInt(all.length))
        : all;
  }

  byte[] text(byte[] bytes) {
    StringBuilder text = new StringBuilder(new String(bytes, StandardCharsets.UTF_8));
    for (int i = random.nextInt(4); i >= 0; i--) {
      int at = random.nextInt(text.length() + 1);
      int end = Math.min(text.length(), at + random.nextInt(12));
      switch (random.nextInt(5)) {
        case 4 -> text.insert(at, NESTED.get(random.nextInt(NESTED.size())).repeat(20_000));
        case 0 -> text.insert(at, TOKENS.get(random.nextInt(TOKENS.size())));
        case 1 -> text.delete(at, end);
        case 2 -> text.insert(at, text.substring(at, end).repeat(random.nextInt(300)));
        default -> text.replace(at, end, TOKENS.get(random.nextInt(TOKENS.size())));
      }
    }
    return text.toString().getBytes(
        random.nextInt(8) == 0 ? StandardCharsets.UTF_16 : StandardCharsets.UTF_8);
  }
}

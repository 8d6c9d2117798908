import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.TreeMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import jollycrate.app.ApplicationFile;
import jollycrate.app.ProblemsException;
import jollycrate.app.ServersFile;
import jollycrate.artifact.ArtifactException;
import jollycrate.artifact.ArtifactReader;

/**
 * Feeds mutated archives, descriptors and descriptions to the real readers, each with a limit. An
 * input is read, or refused by a sentence for people; anything else is a fault. Arguments: a folder
 * of archives, a folder of descriptions, how many inputs, the seed.
 */
public class Fuzz {
  private static final long LIMIT_SECONDS = 5;
  private static final List<String> TOKENS =
      List.of(
          "\"", "'", "<", ">", "&", "]]>", "<!DOCTYPE a [", "<!ENTITY x \"", "<![CDATA[", "<!--",
          "<?x ", "&#0;", "&#x110000;", "\0", "\\u0000", "../", "/", "\\", "http://?:1/", "[[", "]",
          "{", "}", "=", "\n", "é", "\uFEFF", "9999999999999", "-1", "env:", "file:", "1e400",
          "**/", "{a,b", "[z-a]", "%", "%zz", "#", "://", "::", "${x}", "\"\"\"");

  private final Random random;
  private final Map<String, Integer> ends = new TreeMap<>();
  private final List<String> faults = new ArrayList<>();
  private ExecutorService reader = Executors.newSingleThreadExecutor(Fuzz::daemon);

  Fuzz(long seed) {
    random = new Random(seed);
  }

  /** Something that reads a file. */
  private interface Reading {
    void read(Path file) throws Exception;
  }

  private static Thread daemon(Runnable work) {
    Thread thread = new Thread(work, "fuzz");
    thread.setDaemon(true);
    return thread;
  }

  public static void main(String[] args) throws Exception {
    List<Path> archives = files(Path.of(args[0]));
    List<Path> descriptions = files(Path.of(args[1]));
    int count = Integer.parseInt(args[2]);
    Fuzz fuzz = new Fuzz(Long.parseLong(args[3]));
    Path work = Files.createTempDirectory("fuzz");
    Path kept = Files.createDirectories(Path.of("fuzz-faults"));
    for (int i = 0; i < count; i++) {
      boolean archive = i % 3 != 0;
      List<Path> seeds = archive ? archives : descriptions;
      fuzz.one(seeds.get(fuzz.random.nextInt(seeds.size())), work, kept, archive, i);
    }
    System.out.println(count + " inputs: " + fuzz.ends + ", " + fuzz.faults.size() + " faults");
    fuzz.faults.forEach(System.out::println);
    System.exit(fuzz.faults.isEmpty() ? 0 : 1);
  }

  private static List<Path> files(Path folder) throws IOException {
    try (Stream<Path> found = Files.walk(folder)) {
      return found.filter(Files::isRegularFile).sorted().toList();
    }
  }

  private void one(Path seed, Path work, Path kept, boolean archive, int number) throws Exception {
    byte[] bytes = Files.readAllBytes(seed);
    byte[] mutated = archive ? archive(bytes) : text(bytes);
    Path file = Files.write(work.resolve(seed.getFileName()), mutated);
    Reading reading = archive ? ArtifactReader::read : Fuzz::description;
    String end = end(reading, file);
    ends.merge(end.startsWith("fault") ? "fault" : end, 1, Integer::sum);
    if (end.startsWith("fault")) {
      Path copy = Files.write(kept.resolve(number + "-" + seed.getFileName()), mutated);
      faults.add(copy + ": " + end);
    }
  }

  private static void description(Path file) {
    if (file.getFileName().toString().startsWith("servers")) {
      ServersFile.read(file);
    } else {
      ApplicationFile.read(file, Optional.of("bench"));
    }
  }

  private String end(Reading reading, Path file) throws InterruptedException {
    Future<String> read =
        reader.submit(
            () -> {
              reading.read(file);
              return "read";
            });
    try {
      return read.get(LIMIT_SECONDS, TimeUnit.SECONDS);
    } catch (TimeoutException e) {
      reader = Executors.newSingleThreadExecutor(Fuzz::daemon);
      return "fault: not at its end after " + LIMIT_SECONDS + " s";
    } catch (ExecutionException e) {
      Throwable cause = e.getCause();
      boolean told = cause instanceof ArtifactException || cause instanceof ProblemsException;
      return told
          ? "refused"
          : "fault: " + cause + " at " + Arrays.stream(cause.getStackTrace()).limit(4).toList();
    }
  }

  /** Bytes anywhere, or a text inside, or the names of entries. */
  private byte[] archive(byte[] bytes) throws IOException {
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

  private byte[] flipped(byte[] bytes) {
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

  private byte[] text(byte[] bytes) {
    StringBuilder text = new StringBuilder(new String(bytes, StandardCharsets.UTF_8));
    for (int i = random.nextInt(4); i >= 0; i--) {
      int at = random.nextInt(text.length() + 1);
      int end = Math.min(text.length(), at + random.nextInt(12));
      switch (random.nextInt(4)) {
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

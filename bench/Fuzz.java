import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
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
import jollycrate.app.ApplicationFile;
import jollycrate.app.NotDescribedException;
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
  private static final long LIMIT_SECONDS = 10;
  private final Random random;
  private final Mutations mutations;
  private final Map<String, Integer> ends = new TreeMap<>();
  private final List<String> faults = new ArrayList<>();
  private ExecutorService reader = Executors.newSingleThreadExecutor(Fuzz::daemon);

  Fuzz(long seed) {
    random = new Random(seed);
    mutations = new Mutations(random);
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
    byte[] mutated = archive ? mutations.archive(bytes) : mutations.text(bytes);
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
      ApplicationFile.read(file, Optional.empty(), reference -> "x");
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
      boolean told = cause instanceof ArtifactException
              || cause instanceof NotDescribedException
              || cause instanceof ProblemsException;
      return told
          ? "refused"
          : "fault: " + cause + " at " + Arrays.stream(cause.getStackTrace()).limit(4).toList();
    }
  }
}

package jollycrate.file;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;

/**
 * Digests of files that were read in this process. One that still has the same stamp is not read
 * again. A file changed a moment ago is not trusted, unless this process wrote it.
 */
final class SeenFiles {
  private static final Map<Path, Seen> SEEN = new ConcurrentHashMap<>();

  private record Seen(Stamp stamp, String digest) {}

  private SeenFiles() {}

  static String digest(Path file) throws IOException {
    long now = TimeUnit.MILLISECONDS.toNanos(System.currentTimeMillis());
    Optional<Stamp> stamp = Stamp.of(file);
    Seen seen = SEEN.get(file);
    if (seen != null && stamp.filter(seen.stamp::equals).isPresent()) {
      return seen.digest;
    }
    String digest;
    try (InputStream in = Files.newInputStream(file)) {
      digest = Digests.copying(in, OutputStream.nullOutputStream());
    }
    stamp
        .filter(read -> read.isSettledAt(now))
        .ifPresent(settled -> SEEN.put(file, new Seen(settled, digest)));
    return digest;
  }

  static void written(Path file, String digest) throws IOException {
    Stamp.of(file).ifPresent(stamp -> SEEN.put(file, new Seen(stamp, digest)));
  }
}

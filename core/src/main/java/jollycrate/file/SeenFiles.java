package jollycrate.file;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Instant;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Digests of files that were read in this process. One that still is the same inode of the same
 * size, with the same time of its last change (which no program can set), is not read again. A file
 * changed a moment ago is not trusted, as within one tick of the clock it may change twice, unless
 * this process wrote it.
 */
final class SeenFiles {
  private static final long SETTLED_MILLIS = 2_000;

  private static final Map<Path, Seen> SEEN = new ConcurrentHashMap<>();

  private record Form(Object inode, long size, FileTime changed) {
    boolean isSettled() {
      return changed.toMillis() + SETTLED_MILLIS < Instant.now().toEpochMilli();
    }
  }

  private record Seen(Form form, String digest) {}

  private SeenFiles() {}

  static String digest(Path file) throws IOException {
    Optional<Form> form = form(file);
    Seen seen = SEEN.get(file);
    if (seen != null && form.filter(seen.form::equals).isPresent()) {
      return seen.digest;
    }
    String digest;
    try (InputStream in = Files.newInputStream(file)) {
      digest = Digests.copying(in, OutputStream.nullOutputStream());
    }
    form.filter(Form::isSettled).ifPresent(settled -> SEEN.put(file, new Seen(settled, digest)));
    return digest;
  }

  static void written(Path file, String digest) throws IOException {
    form(file).ifPresent(form -> SEEN.put(file, new Seen(form, digest)));
  }

  /** Empty where the system does not tell. */
  private static Optional<Form> form(Path file) throws IOException {
    if (!file.getFileSystem().supportedFileAttributeViews().contains("unix")) {
      return Optional.empty();
    }
    Map<String, Object> facts = Files.readAttributes(file, "unix:fileKey,size,ctime");
    return Optional.of(
        new Form(facts.get("fileKey"), (long) facts.get("size"), (FileTime) facts.get("ctime")));
  }
}

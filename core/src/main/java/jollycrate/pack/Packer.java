package jollycrate.pack;

import java.io.IOException;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.FileSystemException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import jollycrate.artifact.Comparison;
import jollycrate.file.IoReason;
import jollycrate.file.Stamp;

/**
 * Packs an artifact that depends on nothing but its input: entries sorted with the manifest first,
 * one time, no owner, no order of the disk. It is written beside the target and renamed, so that
 * what stood there stays until the new one is whole.
 */
public final class Packer {
  private static final int HEAVIEST = 5;
  private static final long HEAVY = 10_000;

  private final PackRequest request;
  private final Path target;
  private final PackWatch watch;
  private final long begun = System.currentTimeMillis();

  private Packer(PackRequest request, Path target, PackWatch watch) {
    this.request = request;
    this.target = target.toAbsolutePath().normalize();
    this.watch = watch;
  }

  /** Packs while nobody watches. */
  public static Packed pack(PackRequest request, Path target) {
    return pack(request, target, PackWatch.NONE);
  }

  /**
   * Packs.
   *
   * @param target the file; a folder of the same name without the ending goes with it for libraries
   *     beside the JAR
   * @throws PackException when a source is missing, wrong or hostile, there is nothing to pack, or
   *     the target cannot be written; what stood at the target is as it was
   */
  public static Packed pack(PackRequest request, Path target, PackWatch watch) {
    return new Packer(request, target, watch).pack();
  }

  private Packed pack() {
    outputIsNoInput();
    try (Layout layout = new Layout(request)) {
      List<Entry> entries = layout.entries();
      Files.createDirectories(target.getParent());
      return request.shape() == Shape.JAR_AND_LIBS
          ? new LibrariesBeside(this, layout, entries).pack()
          : packed(layout, entries, Optional.empty(), write(entries, target));
    } catch (FileSystemException e) {
      throw new PackException("Cannot pack '" + target + "': " + reason(e));
    } catch (IOException e) {
      throw new PackException("Cannot pack '" + target + "': " + IoReason.of(e));
    }
  }

  private static String reason(FileSystemException e) {
    String place = e.getFile() == null ? "" : e.getFile() + ": ";
    String reason = e.getReason() == null ? e.getClass().getSimpleName() : e.getReason();
    return place + reason;
  }

  private void outputIsNoInput() {
    List<Path> folders = new ArrayList<>(request.classes());
    folders.addAll(request.web());
    Path real = Folder.real(target.getParent()).resolve(target.getFileName());
    for (Path folder : folders) {
      if (real.startsWith(Folder.real(folder))) {
        throw new PackException(
            "Cannot pack '"
                + target
                + "': it stands inside '"
                + folder
                + "', which goes into it. Name another 'to' in [pack]");
      }
    }
    List<Path> files = new ArrayList<>(request.libs());
    files.addAll(request.standalone());
    if (files.stream().anyMatch(file -> Folder.real(file).equals(real))) {
      throw new PackException(
          "Cannot pack '"
              + target
              + "': it is one of the libraries that go into it. Name another 'to' in [pack], or"
              + " fix 'libs'");
    }
  }

  PackRequest request() {
    return request;
  }

  Path target() {
    return target;
  }

  /** How an archive differs from the one it replaced. */
  record Written(boolean changed, Optional<Comparison> since) {}

  /**
   * Writes an archive beside its place, then renames it. The file beside stays locked until then,
   * so that nobody else writes into it.
   */
  Written write(List<Entry> entries, Path place) throws IOException {
    Path beside = place.resolveSibling("." + place.getFileName() + ".part");
    try (Earlier.Maybe earlier = Earlier.at(place, request.time());
        ZipOut out = new ZipOut(beside, request.time())) {
      long begun = begun(beside);
      boolean moved = false;
      try {
        writeEntries(entries, out, earlier, place.getFileName().toString());
        boolean changed = !out.isSameAs(place);
        if (changed) {
          move(beside, place);
          moved = true;
        }
        PackIndex.write(place, request.time(), entries, begun);
        return new Written(
            changed,
            changed
                ? earlier.found().map(old -> Comparison.of(old.archive().members(), out.members()))
                : Optional.empty());
      } finally {
        if (!moved) {
          Files.deleteIfExists(beside);
        }
      }
    }
  }

  /** When packing began by the clock of the disk, which may be behind that of this machine. */
  private long begun(Path justMade) throws IOException {
    long since = System.currentTimeMillis() - begun;
    long made = Stamp.of(justMade).map(Stamp::changed).orElse(Long.MAX_VALUE);
    return Math.min(
        TimeUnit.MILLISECONDS.toNanos(begun), made - TimeUnit.MILLISECONDS.toNanos(since));
  }

  private void writeEntries(List<Entry> entries, ZipOut out, Earlier.Maybe earlier, String name)
      throws IOException {
    long all = entries.stream().mapToLong(entry -> entry.source().size()).sum();
    long[] done = {0};
    try (ZipWriter writer =
        new ZipWriter(out, earlier.found(), bytes -> watch.packed(name, done[0] += bytes, all))) {
      writer.write(entries);
    }
  }

  static void move(Path from, Path to) throws IOException {
    try {
      Files.move(from, to, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    } catch (AtomicMoveNotSupportedException e) {
      Files.move(from, to, StandardCopyOption.REPLACE_EXISTING);
    }
  }

  Packed packed(Layout layout, List<Entry> entries, Optional<Path> folder, Written written)
      throws IOException {
    Map<String, Packed.Part> parts = new LinkedHashMap<>();
    for (Entry entry : entries) {
      if (!entry.isFolder()) {
        parts.merge(
            entry.part(),
            new Packed.Part(entry.part(), 1, entry.source().size()),
            (a, b) -> new Packed.Part(a.name(), a.files() + 1, a.bytes() + b.bytes()));
      }
    }
    return new Packed(
        request.shape(),
        target,
        folder,
        Files.size(target),
        written.changed(),
        layout.mainClass(),
        List.copyOf(parts.values()),
        heaviest(entries),
        List.copyOf(layout.contents().leftOut()),
        List.copyOf(layout.contents().remarks()),
        written.since());
  }

  private static List<Packed.Heavy> heaviest(List<Entry> entries) {
    Stream<Entry> sorted =
        entries.stream()
            .filter(entry -> entry.source().size() >= HEAVY)
            .sorted(Comparator.comparingLong((Entry entry) -> -entry.source().size()));
    return sorted
        .limit(HEAVIEST)
        .map(entry -> new Packed.Heavy(entry.name(), entry.source().size()))
        .toList();
  }
}

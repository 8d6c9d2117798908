package jollycrate.ssh;

import java.nio.file.Path;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import jollycrate.host.AbsentException;
import jollycrate.host.Facts;
import jollycrate.host.Glance;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;

/** What is read of files of another machine, by the tools that a shell there has. */
abstract class ReadingFiles implements HostFiles {
  private static final int KIB = 1024;

  /** In the words of errno(3), and in those of the shell. */
  private static final Set<String> ABSENT = Set.of("No such file or directory", "No such file");

  /** Column of {@code df -P} with the blocks that are free. */
  private static final int FREE = 3;

  private final SshSight sight;

  ReadingFiles(SshSight sight) {
    this.sight = sight;
  }

  private Shell.Reply reading(String verb, Path path, String script) {
    return orFail(verb, path, sight.read(script));
  }

  static Shell.Reply orFail(String verb, Path path, Shell.Reply reply) {
    if (reply.exit() != 0) {
      String reason = reason(reply);
      throw ABSENT.contains(reason)
          ? new AbsentException(verb, path)
          : new HostException("Cannot " + verb + " '" + path + "': " + reason);
    }
    return reply;
  }

  /** The shell is told to speak English. */
  private static String reason(Shell.Reply reply) {
    String last = reply.errors().lines().reduce((one, other) -> other).orElse("it failed");
    String reason = last.substring(last.lastIndexOf(": ") + 1).strip();
    return ABSENT.contains(reason) || reason.isEmpty()
        ? reason
        : reason.substring(0, 1).toLowerCase(Locale.ENGLISH) + reason.substring(1);
  }

  @Override
  public List<Facts> facts(List<Path> paths) {
    return paths.isEmpty() ? List.of() : sight.facts(paths);
  }

  @Override
  public List<Path> list(Path folder) {
    String told = reading("list", folder, ReadScripts.list(folder)).text();
    return Stream.of(told.split("\0"))
        .filter(path -> !path.isEmpty())
        .map(Path::of)
        .sorted()
        .toList();
  }

  @Override
  public String digest(Path file) {
    return reading("read", file, ReadScripts.digest(file)).text().split(" ")[0];
  }

  @Override
  public byte[] read(Path file, long offset, int most) {
    try {
      return reading("read", file, ReadScripts.part(new Glance.Part(file, offset, most))).output();
    } catch (AbsentException absent) {
      return new byte[0];
    }
  }

  @Override
  public Optional<byte[]> wholeIfThere(Path file, int most) {
    return sight.once(
        () -> {
          sight.ahead(new Glance().wholes(List.of(file), most));
          return HostFiles.super.wholeIfThere(file, most);
        });
  }

  @Override
  public Map<Path, byte[]> wholes(Collection<Path> files, int most) {
    return together(new Glance().wholes(files, most), files, file -> whole(file, most));
  }

  @Override
  public Map<Path, String> digests(Collection<Path> files) {
    return sight.once(
        () -> {
          sight.ahead(new Glance().digests(files));
          return HostFiles.super.digests(files);
        });
  }

  @Override
  public Map<Path, List<Path>> lists(Collection<Path> folders) {
    return together(new Glance().lists(folders), folders, this::list);
  }

  private <T> Map<Path, T> together(
      Glance glance, Collection<Path> paths, Function<Path, T> reading) {
    return sight.once(
        () -> {
          sight.ahead(glance);
          Map<Path, T> found = new HashMap<>();
          paths.forEach(path -> found.put(path, reading.apply(path)));
          return found;
        });
  }

  @Override
  public Path real(Path path) {
    String real = reading("look at", path, ReadScripts.real(path)).text();
    return Path.of(real.endsWith("\n") ? real.substring(0, real.length() - 1) : real);
  }

  @Override
  public long free(Path folder) {
    String last = reading("look at", folder, ReadScripts.free(folder)).text().strip();
    String[] told = last.substring(last.lastIndexOf('\n') + 1).split("\\s+");
    if (told.length <= FREE) {
      throw new HostException("Cannot look at '" + folder + "': df says '" + last + "'");
    }
    return Long.parseLong(told[FREE]) * KIB;
  }

  @Override
  public boolean writable(Path folder) {
    return sight.read(ReadScripts.writable(folder)).exit() == 0;
  }
}

package jollycrate.ssh;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;
import jollycrate.host.LineCutException;
import jollycrate.host.Quote;

/** Files of another machine: how they are changed there. */
final class SshFiles extends ReadingFiles {
  /** What is larger is sent at once: it need not fit into memory. */
  private static final int MOST_GATHERED = 1 << 20;

  private final SshSight sight;
  private final Map<String, Optional<Recipe>> recipes = new HashMap<>();

  SshFiles(SshSight sight) {
    super(sight);
    this.sight = sight;
  }

  private void doing(String verb, Path path, String script) {
    changing(verb, path, script, new byte[0]);
  }

  private void changing(String verb, Path path, String script, byte[] input) {
    sight.change(script, input, reply -> orFail(verb, path, reply));
  }

  private static String octal(String letters) {
    return Integer.toOctalString(
        PosixFilePermissions.fromString(letters).stream().mapToInt(StatLine::bit).sum());
  }

  @Override
  public void put(Path file, Content content, Access access) {
    Path beside = HostFiles.beside(file);
    String ending = written(beside, access, content.digest()) + replaced(beside, file);
    Optional<byte[]> small = content.bytes(MOST_GATHERED);
    if (small.isPresent()) {
      changing("write", file, beside(beside) + "cat > \"$b\"" + ending, small.get());
      return;
    }
    if (recipe(file, content).filter(recipe -> follow(recipe, beside, ending)).isPresent()) {
      return;
    }
    sight.settle();
    send(file, content, ending);
  }

  /** Sends a file; what came before the connection was cut is not sent again. */
  private void send(Path file, Content content, String ending) {
    Path beside = HostFiles.beside(file);
    long there = 0;
    while (true) {
      try (InputStream in = content.open()) {
        in.skipNBytes(there);
        String script = further(beside, there, content.size()) + ending;
        orFail("write", file, sight.change(script, in, content.size() - there));
        return;
      } catch (LineCutException cut) {
        sight.back(cut);
        long now = facts(beside).size();
        if (now <= there) {
          throw cut;
        }
        there = now;
      } catch (IOException e) {
        throw HostException.cannot("read what is to be put as", file, e);
      }
    }
  }

  /** Goes on with a file, which stays for the next try as long as not all of it is there. */
  private static String further(Path beside, long there, long size) {
    return "b="
        + Quote.word(beside)
        + (there > 0 ? "\n" : "; rm -f \"$b\"\n")
        + "cat >> \"$b\" || { rm -f \"$b\"; exit 1; }\n[ \"$(stat -c %s \"$b\")\" -eq "
        + size
        + " ] || { echo it was cut off >&2; exit 1; }\ntrap 'rm -f \"$b\"' EXIT\n:";
  }

  /** Makes a file from what stands there and what is sent; false when it did not become the one. */
  private boolean follow(Recipe recipe, Path beside, String ending) {
    String script =
        beside(beside)
            + "o="
            + Quote.word(recipe.other())
            + "\ncopy() { tail -c +$(($1 + 1)) \"$o\" | head -c \"$2\"; }\n{\n"
            + recipe.script()
            + "} > \"$b\"";
    return follow(recipe, script + ending).exit() == 0;
  }

  private Shell.Reply follow(Recipe recipe, String script) {
    sight.settle();
    try {
      return sight.change(script, recipe.bytes(), recipe.own());
    } catch (LineCutException cut) {
      sight.back(cut);
      return sight.change(script, recipe.bytes(), recipe.own());
    }
  }

  @Override
  public long onTheWay(Path file, Content content) {
    return content.size() <= MOST_GATHERED
        ? content.size()
        : recipe(file, content).map(Recipe::own).orElse(content.size());
  }

  /**
   * How a file is made from the newest of its sort in its folder; empty where that saves little.
   */
  private Optional<Recipe> recipe(Path file, Content content) {
    return content.file().isEmpty()
        ? Optional.empty()
        : recipes.computeIfAbsent(content.digest(), digest -> recipe(file, content.file().get()));
  }

  private Optional<Recipe> recipe(Path file, Path source) {
    String name = file.getFileName().toString();
    String ending = name.substring(Math.max(0, name.lastIndexOf('.')));
    List<Path> alike =
        list(file.getParent()).stream()
            .filter(path -> path.toString().endsWith(ending) && !path.equals(file))
            .toList();
    return facts(alike).stream()
        .filter(Facts::isFile)
        .max(Comparator.comparing(Facts::modified))
        .flatMap(other -> recipe(source, other))
        .filter(Recipe::isWorthIt);
  }

  private Optional<Recipe> recipe(Path source, Facts other) {
    try {
      return Optional.of(
          Recipe.of(source, other.path(), new FarFile(this, other.path(), other.size())));
    } catch (IOException noArchive) {
      return Optional.empty();
    }
  }

  /** Makes sure that all of it was written beside, and is what it should be. */
  private static String written(Path beside, Access access, String digest) {
    return " && "
        + granted(beside, access)
        + " || exit 1\n[ \"$(sha256sum < \"$b\")\" = '"
        + digest
        + "  -' ] || { echo the source changed while it was copied >&2; exit 1; }\n"
        + "durable \"$b\" || exit 1\n";
  }

  private static String granted(Path path, Access access) {
    return "grant "
        + Quote.word(access.owner() + ":" + access.group())
        + " "
        + octal(access.mode())
        + " "
        + Quote.word(path);
  }

  private static String replaced(Path from, Path to) {
    return "replace " + Quote.word(from) + " " + Quote.word(to) + "\n";
  }

  @Override
  public void copy(Path from, Path to) {
    Path beside = HostFiles.beside(to);
    doing(
        "copy",
        from,
        ReadScripts.regular(from)
            + beside(beside)
            + "a="
            + Quote.word(from)
            + "\ncat \"$a\" > \"$b\" &&"
            + " grant \"$(stat -c %U:%G \"$a\")\" \"$(stat -c %a \"$a\")\" \"$b\" &&"
            + " durable \"$b\" && "
            + replaced(beside, to));
  }

  /** Begins a file that goes when the script fails. */
  private static String beside(Path beside) {
    return "b=" + Quote.word(beside) + "; rm -f \"$b\"; trap 'rm -f \"$b\"' EXIT\n";
  }

  @Override
  public void write(Path file, long offset, byte[] bytes) {
    String part = " bs=1 seek=" + offset + " conv=notrunc 2>/dev/null";
    inside("write", file, "dd of=" + Quote.word(file) + part, bytes);
  }

  @Override
  public void append(Path file, byte[] bytes) {
    inside("append to", file, "cat >> " + Quote.word(file), bytes);
  }

  private void inside(String verb, Path file, String change, byte[] bytes) {
    String word = Quote.word(file);
    String script = "[ -f " + word + " ] || { echo there is no such file >&2; exit 1; }\n" + change;
    changing(verb, file, script + " && durable " + word, bytes);
  }

  @Override
  public void makeFolder(Path folder, Access access) {
    doing(
        "make folder",
        folder,
        "mkdir "
            + Quote.word(folder)
            + " && "
            + granted(folder, access)
            + " && durable "
            + Quote.word(folder.getParent()));
  }

  @Override
  public void move(Path from, Path to) {
    doing(
        "rename", from, replaced(from, to).strip() + " && durable " + Quote.word(from.getParent()));
  }

  @Override
  public void touch(Path file) {
    doing("set the time of", file, ReadScripts.regular(file) + "touch -c " + Quote.word(file));
  }

  @Override
  public void delete(Path path) {
    String word = Quote.word(path);
    doing(
        "delete",
        path,
        "if [ -d "
            + word
            + " ] && [ ! -h "
            + word
            + " ]; then rmdir "
            + word
            + "; else rm -f "
            + word
            + "; fi && { [ ! -d "
            + Quote.word(path.getParent())
            + " ] || durable "
            + Quote.word(path.getParent())
            + "; }");
  }

  @Override
  public void deleteTree(Path path) {
    doing("delete", path, "rm -rf " + Quote.word(path));
  }
}

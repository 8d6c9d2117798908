package jollycrate.ssh;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import jollycrate.host.Access;
import jollycrate.host.Content;
import jollycrate.host.Facts;
import jollycrate.host.HostException;
import jollycrate.host.HostFiles;

/** Files of another machine, by the tools that a shell there has. */
final class SshFiles implements HostFiles {
  private static final int KIB = 1024;

  /** Column of {@code df -P} with the blocks that are free. */
  private static final int FREE = 3;

  private final Shell shell;

  SshFiles(Shell shell) {
    this.shell = shell;
  }

  private Shell.Reply doing(String verb, Path path, String script) {
    return orFail(verb, path, shell.ask(script));
  }

  private static Shell.Reply orFail(String verb, Path path, Shell.Reply reply) {
    if (reply.exit() != 0) {
      throw new HostException("Cannot " + verb + " '" + path + "': " + reason(reply));
    }
    return reply;
  }

  /** The shell is told to speak English, so these are the words of errno(3). */
  private static String reason(Shell.Reply reply) {
    String last = reply.errors().lines().reduce((one, other) -> other).orElse("it failed");
    String reason = last.substring(last.lastIndexOf(": ") + 1).strip();
    return reason.equals("No such file or directory")
        ? "there is no such file"
        : reason.substring(0, 1).toLowerCase(Locale.ENGLISH) + reason.substring(1);
  }

  /** A script that ends when a link stands at a path, which is never followed. */
  private static String noLink(Path path) {
    return "[ ! -h " + Quote.word(path) + " ] || { echo it is a link >&2; exit 1; }\n";
  }

  @Override
  public List<Facts> facts(List<Path> paths) {
    return paths.isEmpty() ? List.of() : StatLine.facts(shell, paths);
  }

  private static String octal(String letters) {
    return Integer.toOctalString(
        PosixFilePermissions.fromString(letters).stream().mapToInt(StatLine::bit).sum());
  }

  @Override
  public List<Path> list(Path folder) {
    String told = doing("list", folder, listing(folder)).text();
    return Stream.of(told.split("\0"))
        .filter(path -> !path.isEmpty())
        .map(Path::of)
        .sorted()
        .toList();
  }

  private static String listing(Path folder) {
    String word = Quote.word(folder);
    return "if [ -d "
        + word
        + " ] && [ ! -h "
        + word
        + " ]; then find "
        + word
        + " -mindepth 1 -maxdepth 1 -print0; fi\n";
  }

  @Override
  public String digest(Path file) {
    String digest = noLink(file) + "sha256sum < " + Quote.word(file);
    return doing("read", file, digest).text().split(" ")[0];
  }

  /** Opened first: what fails inside a pipe would be told as an empty file. */
  @Override
  public byte[] read(Path file, long offset, int most) {
    Shell.Reply reply =
        shell.ask(
            noLink(file)
                + "exec 3< "
                + Quote.word(file)
                + " || exit 1\ntail -c +"
                + (offset + 1)
                + " <&3 | head -c "
                + most);
    boolean absent =
        reply.exit() != 0
            && (reply.errors().endsWith("No such file or directory")
                || reply.errors().endsWith("No such file"));
    return absent ? new byte[0] : orFail("read", file, reply).output();
  }

  @Override
  public void put(Path file, Content content, Access access) {
    Path beside = HostFiles.beside(file);
    try (InputStream in = content.open()) {
      orFail(
          "write",
          file,
          shell.ask(
              written(beside, access, content.digest()) + replaced(beside, file),
              in,
              content.size()));
    } catch (IOException e) {
      throw HostException.cannot("read what is to be put as", file, e);
    }
  }

  /** Puts its input into a file beside, and makes sure that it is all of it. */
  private static String written(Path beside, Access access, String digest) {
    return beside(beside)
        + "cat > \"$b\" && "
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
        noLink(from)
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
    changing(
        "write",
        file,
        "dd of=" + Quote.word(file) + " bs=1 seek=" + offset + " conv=notrunc 2>/dev/null",
        bytes);
  }

  @Override
  public void append(Path file, byte[] bytes) {
    changing("append to", file, "cat >> " + Quote.word(file), bytes);
  }

  private void changing(String verb, Path file, String change, byte[] bytes) {
    String word = Quote.word(file);
    String script = "[ -f " + word + " ] || { echo there is no such file >&2; exit 1; }\n" + change;
    orFail(
        verb,
        file,
        shell.ask(script + " && durable " + word, new ByteArrayInputStream(bytes), bytes.length));
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
    doing("set the time of", file, noLink(file) + "touch -c " + Quote.word(file));
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

  /** What fails is asked for once more alone, which tells why. */
  @Override
  public Map<Path, byte[]> wholes(Collection<Path> files, int most) {
    String mark = Shell.mark();
    StringBuilder script = new StringBuilder();
    for (Path file : files) {
      script.append(
          "(\n"
              + noLink(file)
              + "exec 3< "
              + Quote.word(file)
              + " || exit 1\nhead -c "
              + (most + 1L)
              + " <&3)\nprintf '\\n%s %s\\n' "
              + mark
              + " $?\n");
    }
    String told = latin(shell.ask(script + ":"));
    Map<Path, byte[]> found = new HashMap<>();
    int at = 0;
    for (Path file : files) {
      int end = told.indexOf("\n" + mark + " ", at);
      int line = told.indexOf('\n', end + 1);
      boolean right = told.substring(end, line).endsWith(" 0") && end - at <= most;
      found.put(
          file,
          right
              ? told.substring(at, end).getBytes(StandardCharsets.ISO_8859_1)
              : whole(file, most));
      at = line + 1;
    }
    return found;
  }

  @Override
  public Map<Path, String> digests(Collection<Path> files) {
    StringBuilder script = new StringBuilder();
    for (Path file : files) {
      String word = Quote.word(file);
      script.append("[ ! -h " + word + " ] && sha256sum < " + word + " || echo failed\n");
    }
    List<String> lines = shell.ask(script + ":").text().lines().toList();
    Map<Path, String> found = new HashMap<>();
    for (Path file : files) {
      String line = lines.get(found.size());
      found.put(file, line.equals("failed") ? digest(file) : line.split(" ")[0]);
    }
    return found;
  }

  /** Each folder's paths end with an empty one, and with a word where it could not be read. */
  @Override
  public Map<Path, List<Path>> lists(Collection<Path> folders) {
    StringBuilder script = new StringBuilder();
    for (Path folder : folders) {
      script.append("(\n" + listing(folder) + ") && printf '\\0' || printf 'failed\\0\\0'\n");
    }
    String[] words = shell.ask(script + ":").text().split("\0", -1);
    Map<Path, List<Path>> found = new HashMap<>();
    int at = 0;
    for (Path folder : folders) {
      List<Path> paths = new ArrayList<>();
      boolean failed = false;
      for (; !words[at].isEmpty(); at++) {
        failed = failed || words[at].equals("failed");
        paths.add(Path.of(words[at]));
      }
      at++;
      found.put(folder, failed ? list(folder) : paths.stream().sorted().toList());
    }
    return found;
  }

  private static String latin(Shell.Reply reply) {
    return new String(reply.output(), StandardCharsets.ISO_8859_1);
  }

  @Override
  public Path real(Path path) {
    String word = Quote.word(path);
    String script =
        "if [ -e " + word + " ]; then readlink -f " + word + "; else printf %s " + word + "; fi";
    String real = doing("look at", path, script).text();
    return Path.of(real.endsWith("\n") ? real.substring(0, real.length() - 1) : real);
  }

  @Override
  public long free(Path folder) {
    String last = doing("look at", folder, "df -Pk " + Quote.word(folder)).text().strip();
    String[] told = last.substring(last.lastIndexOf('\n') + 1).split("\\s+");
    if (told.length <= FREE) {
      throw new HostException("Cannot look at '" + folder + "': df says '" + last + "'");
    }
    return Long.parseLong(told[FREE]) * KIB;
  }

  @Override
  public boolean writable(Path folder) {
    return shell.ask("[ -w " + Quote.word(folder) + " ]").exit() == 0;
  }
}

package jollycrate.ssh;

import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import jollycrate.host.Glance;
import jollycrate.host.Quote;

/** Scripts that read something of another machine and change nothing. */
final class ReadScripts {
  private ReadScripts() {}

  /**
   * Ends when a link stands at a path, which is never followed, or a pipe or a device, which might
   * never end. A file may come and go meanwhile.
   */
  static String regular(Path path) {
    String word = Quote.word(path);
    return "[ ! -h "
        + word
        + " ] || { echo it is a link >&2; exit 1; }\n"
        + "[ -f "
        + word
        + " ] || [ ! -e "
        + word
        + " ] || [ -f "
        + word
        + " ] || { echo it is no regular file >&2; exit 1; }\n";
  }

  /** Opened first: what fails inside a pipe would be told as an empty file. */
  static String part(Glance.Part part) {
    return regular(part.file())
        + "exec 3< "
        + Quote.word(part.file())
        + " || exit 1\n"
        + (part.offset() == 0 ? "" : "tail -c +" + (part.offset() + 1) + " <&3 | ")
        + "head -c "
        + part.most()
        + (part.offset() == 0 ? " <&3" : "");
  }

  /** Paths inside a folder, each with a NUL behind it. */
  static String list(Path folder) {
    String word = Quote.word(folder);
    return "if [ -d "
        + word
        + " ] && [ ! -h "
        + word
        + " ]; then find "
        + word
        + " -mindepth 1 -maxdepth 1 -print0; fi\n";
  }

  static String digest(Path file) {
    return regular(file) + "sha256sum < " + Quote.word(file);
  }

  static String real(Path path) {
    String word = Quote.word(path);
    return "if [ -e " + word + " ]; then readlink -f " + word + "; else printf %s " + word + "; fi";
  }

  static String free(Path folder) {
    return "df -Pk " + Quote.word(folder);
  }

  static String writable(Path folder) {
    return "[ -w " + Quote.word(folder) + " ]";
  }

  /** Whose a folder is, when root asks. */
  static String owner(Path folder) {
    String word = Quote.word(folder);
    return "[ \"$(id -u)\" = 0 ] && [ -e " + word + " ] && stat -c %U " + word;
  }

  /** Ends when one of some files is another one than at its begin, or after half a second. */
  static String pause(List<Path> watched) {
    return "s() { stat -c '%n %s %i' -- "
        + Quote.words(watched)
        + " 2>/dev/null; }\nb=$(s); i=0\n"
        + "while [ $i -lt 10 ] && [ \"$(s)\" = \"$b\" ]; do sleep 0.05; i=$((i + 1)); done";
  }

  static Stream<String> place(Path folder) {
    return Stream.of(free(folder), writable(folder), owner(folder));
  }
}

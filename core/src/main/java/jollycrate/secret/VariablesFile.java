package jollycrate.secret;

import io.github.cdimascio.dotenv.Dotenv;
import io.github.cdimascio.dotenv.DotenvException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import jollycrate.file.IoReason;

/** A file {@code .env} with variables of one developer, beside the files that refer to them. */
public final class VariablesFile {
  /** Its name. */
  public static final String NAME = ".env";

  private static final Pattern ENTRY = Pattern.compile("\\s*(?:#.*|[\\w.-]+\\s*=.*)?");
  private static final long MOST_BYTES = 1 << 20;
  private static final Set<PosixFilePermission> OWN = PosixFilePermissions.fromString("rwx------");

  private VariablesFile() {}

  /**
   * The value of a variable; empty when there is no such file, or nothing of that name in it.
   *
   * @throws SecretException when others than its owner can read the file, or nobody understands it
   */
  static Optional<String> value(Path folder, String name) {
    Path file = folder.resolve(NAME);
    if (!Files.isRegularFile(file)) {
      return Optional.empty();
    }
    try {
      Set<PosixFilePermission> rights = Files.getPosixFilePermissions(file);
      if (!OWN.containsAll(rights)) {
        throw new SecretException(
            "Cannot use '"
                + file
                + "': others can read it ("
                + PosixFilePermissions.toString(rights)
                + "). Run chmod 600 "
                + file);
      }
      if (Files.size(file) > MOST_BYTES) {
        throw new SecretException("Cannot use '" + file + "': it is larger than 1 MB");
      }
      return Dotenv.configure()
          .directory(folder.toString())
          .load()
          .entries(Dotenv.Filter.DECLARED_IN_ENV_FILE)
          .stream()
          .filter(entry -> entry.getKey().equals(name))
          .map(entry -> entry.getValue())
          .findFirst();
    } catch (DotenvException quotesTheLine) {
      throw new SecretException(
          "Cannot read '" + file + "': line " + wrongLine(file) + " is not written NAME=value");
    } catch (IOException e) {
      throw new SecretException("Cannot read '" + file + "': " + IoReason.of(e));
    }
  }

  /** The number of the first line that is no entry; what stands there is not told. */
  private static int wrongLine(Path file) {
    try {
      List<String> lines = Files.readAllLines(file);
      return 1
          + IntStream.range(0, lines.size())
              .filter(i -> !ENTRY.matcher(lines.get(i)).matches())
              .findFirst()
              .orElse(0);
    } catch (IOException changedMeanwhile) {
      return 1;
    }
  }

  /** Whether such a file stands in a folder. */
  public static boolean isIn(Path folder) {
    return Files.isRegularFile(folder.resolve(NAME), LinkOption.NOFOLLOW_LINKS);
  }
}

package jollycrate.stock;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.host.Host;
import jollycrate.host.HostException;

/** Which Java a home holds. */
public final class ServerJava {
  /** How much of a release file is read at most. */
  public static final int MOST_BYTES = 1 << 16;

  private static final Duration LIMIT = Duration.ofSeconds(20);
  private static final Pattern RELEASE = Pattern.compile("JAVA_VERSION=\"(?:1\\.)?(\\d+)");
  private static final Pattern SPOKEN = Pattern.compile("version \"(?:1\\.)?(\\d+)");

  private ServerJava() {}

  /** Where a home tells its release. */
  public static Path release(Path home) {
    return home.resolve("release");
  }

  /** Feature release that the release file of a Java tells; empty when it does not. */
  public static Optional<Integer> written(byte[] release) {
    Matcher written = RELEASE.matcher(new String(release, StandardCharsets.UTF_8));
    return written.find() ? Optional.of(Integer.parseInt(written.group(1))) : Optional.empty();
  }

  /**
   * Feature release of the Java in a home, from its release file or else by asking it.
   *
   * @throws HostException when there is no Java
   */
  public static int feature(Host host, Path home) {
    byte[] release = host.files().read(release(home), 0, MOST_BYTES);
    Optional<Integer> written = written(release);
    if (written.isPresent()) {
      return written.get();
    }
    String program = home.resolve("bin/java").toString();
    if (!host.files().facts(Path.of(program)).exists()) {
      throw new HostException("Cannot use '" + home + "' as Java: there is no bin/java in it");
    }
    String told =
        host.processes().run(List.of(program, "-version"), home, Map.of(), "", LIMIT).errors();
    Matcher spoken = SPOKEN.matcher(told);
    if (!spoken.find()) {
      throw new HostException("Cannot use '" + home + "' as Java: it does not tell its version");
    }
    return Integer.parseInt(spoken.group(1));
  }
}

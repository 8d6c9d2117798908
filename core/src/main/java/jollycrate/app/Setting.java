package jollycrate.app;

import java.nio.file.Path;
import java.util.Optional;

/**
 * Where the tool works.
 *
 * @param folder from which files are looked for upwards
 * @param archives folder of the practice server's archive
 * @param data where installations are unpacked, for this user
 * @param java home of the Java that servers run on unless told otherwise
 * @param by who makes changes, as records name them
 * @param sourceDateEpoch time of archive entries, in seconds since 1970, as it is told
 */
public record Setting(
    Path folder,
    Optional<Path> archives,
    Path data,
    Path java,
    String by,
    Optional<String> sourceDateEpoch) {

  /**
   * The setting of this process: {@code jolly.home} is where the program stands, {@code JOLLY_DATA}
   * replaces the user's own data folder.
   */
  public static Setting ofThisProcess() {
    Path home = Path.of(System.getProperty("user.home"));
    Path data =
        variable("JOLLY_DATA")
            .or(() -> variable("XDG_DATA_HOME").map(path -> path.resolve("jolly-crate")))
            .orElse(home.resolve(".local/share/jolly-crate"));
    return new Setting(
        Path.of("").toAbsolutePath(),
        Optional.ofNullable(System.getProperty("jolly.home"))
            .map(program -> Path.of(program).resolve("servers")),
        data.toAbsolutePath(),
        Path.of(System.getProperty("java.home")),
        System.getProperty("user.name"),
        Optional.ofNullable(System.getenv("SOURCE_DATE_EPOCH")).filter(text -> !text.isBlank()));
  }

  /**
   * Servers are handled by what Linux tells of processes and ports.
   *
   * @throws NotDescribedException on any other operating system
   */
  public void mustHandleServers() {
    String system = System.getProperty("os.name");
    if (!system.equals("Linux")) {
      throw new NotDescribedException(
          "Cannot handle servers on "
              + system
              + ": processes, ports and services are handled in ways that were tested on Linux"
              + " only. 'jolly pack', 'inspect' and 'compare' work here; run the other commands on"
              + " the Linux machine");
    }
  }

  /** The same, working from another folder. */
  public Setting in(Path otherFolder) {
    return new Setting(otherFolder, archives, data, java, by, sourceDateEpoch);
  }

  /** The same, with another folder for what is kept for this user. */
  public Setting keeping(Path otherData) {
    return new Setting(folder, archives, otherData, java, by, sourceDateEpoch);
  }

  private static Optional<Path> variable(String name) {
    return Optional.ofNullable(System.getenv(name)).filter(v -> !v.isEmpty()).map(Path::of);
  }
}

package jollycrate.site;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Setting;
import jollycrate.file.IoReason;
import jollycrate.host.Host;
import jollycrate.host.Ran;
import jollycrate.server.Server;
import jollycrate.stock.ServerJava;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveInputStream;
import org.apache.commons.compress.compressors.gzip.GzipCompressorInputStream;

/**
 * A Java in an archive of a team's, as vendors publish it: one folder that holds all of it.
 *
 * @param file beside the tool
 */
record JavaArchive(Path file) {
  private static final String RELEASE = "(?:\\./)?[^/]+/release";
  private static final Duration SPEAKS_WITHIN = Duration.ofSeconds(60);

  /** The home that it has on a machine, whether it was brought there or not. */
  Path home(Host host, Setting setting) {
    if (!Files.isRegularFile(file)) {
      throw cannot("there is no such file here");
    }
    Provisions provisions =
        host.here() ? new Provisions(host, setting.data()) : Provisions.of(host);
    return provisions.place(file);
  }

  /** What has to be brought to a machine; empty where it stands. */
  Optional<Server.Supply> supply(Host host, Setting setting) {
    return host.files().facts(home(host, setting)).isFolder()
        ? Optional.empty()
        : Optional.of(new Server.Supply(file, feature()));
  }

  private int feature() {
    try (InputStream in = new BufferedInputStream(Files.newInputStream(file));
        TarArchiveInputStream tar = new TarArchiveInputStream(new GzipCompressorInputStream(in))) {
      for (TarArchiveEntry entry = tar.getNextEntry(); entry != null; entry = tar.getNextEntry()) {
        if (entry.isFile() && entry.getName().matches(RELEASE)) {
          return ServerJava.written(tar.readNBytes(ServerJava.MOST_BYTES))
              .orElseThrow(() -> cannot("its file 'release' does not tell its version"));
        }
      }
      throw cannot("there is no file 'release' in its folder, so it is none");
    } catch (IOException e) {
      throw cannot(IoReason.of(e));
    }
  }

  /**
   * Unpacks it on a machine, and sees that it runs there.
   *
   * @throws NotDescribedException when it does not; then nothing of it is left there
   */
  void bring(Host host, Setting setting) {
    Path home = home(host, setting);
    if (host.here()) {
      try {
        Unpacking.unpack(file, home);
      } catch (IOException e) {
        throw cannot(IoReason.of(e));
      }
    } else {
      Provisions.of(host).put(file);
    }
    List<String> speak = List.of(home.resolve("bin/java").toString(), "-version");
    Ran ran = host.processes().run(speak, Path.of("/"), Map.of(), "", SPEAKS_WITHIN);
    if (ran.exit() != 0) {
      host.files().deleteTree(home);
      throw cannot("it does not run on '" + host.name() + "': " + ran.errors().strip());
    }
  }

  private NotDescribedException cannot(String why) {
    return new NotDescribedException(
        "Cannot use '"
            + file
            + "' as Java: "
            + why
            + ". Fix 'java' in servers.toml, or give it an archive with a Java for its machine");
  }
}

package jollycrate.watch;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.host.Facts;
import jollycrate.host.Glance;
import jollycrate.host.HostException;
import jollycrate.host.LineCutException;
import jollycrate.server.Placement;

/**
 * Files in which a server says what became of a placement. By the clock of the server's own
 * machine: what is older than the switch, or than the start of the server, tells of something else.
 */
public record Marks(Site site, Placement placement) {
  private static final int MOST_BYTES = 1 << 20;

  private List<Path> files() {
    return placement.made().marks();
  }

  /** What {@link #texts} is going to read. */
  Glance glance() {
    return new Glance()
        .facts(List.of(placement.switchPath(), site.records().processNote()))
        .wholes(files(), MOST_BYTES);
  }

  /**
   * Their texts.
   *
   * @param started whether the server was started since the switch was put
   */
  Map<Path, String> texts(boolean started) {
    Map<Path, String> texts = new HashMap<>();
    for (Path file : written(started)) {
      text(file).ifPresent(text -> texts.put(file, text));
    }
    return texts;
  }

  /** Empty when the server took it away meanwhile: what could not be read proves nothing. */
  private Optional<String> text(Path file) {
    try {
      byte[] text = site.files().whole(file, MOST_BYTES);
      return Optional.of(new String(text, StandardCharsets.UTF_8));
    } catch (LineCutException cut) {
      throw cut;
    } catch (HostException unread) {
      return Optional.empty();
    }
  }

  /** Those that were written since its switch was put; all of them when that is gone. */
  public List<Path> written() {
    return written(false);
  }

  private List<Path> written(boolean started) {
    if (files().isEmpty()) {
      return List.of();
    }
    List<Path> references = new ArrayList<>(List.of(placement.switchPath()));
    if (started) {
      references.add(site.records().processNote());
    }
    Instant since =
        site.files().facts(references).stream()
            .filter(Facts::exists)
            .map(Facts::modified)
            .max(Instant::compareTo)
            .orElse(Instant.MIN);
    return site.files().facts(files()).stream()
        .filter(Facts::isFile)
        .filter(mark -> !mark.modified().isBefore(since))
        .map(Facts::path)
        .toList();
  }
}

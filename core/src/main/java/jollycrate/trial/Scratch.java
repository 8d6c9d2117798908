package jollycrate.trial;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Optional;
import jollycrate.app.ServerEntry;
import jollycrate.delivery.ServerService;
import jollycrate.file.Trees;
import jollycrate.site.ServerFoundation;
import jollycrate.site.Sites;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;
import jollycrate.watch.Site;

/** A server in a folder of its own that nobody describes and that leaves nothing behind. */
final class Scratch implements AutoCloseable {
  private final ServerEntry entry;
  private final Site site;

  private Scratch(ServerEntry entry, Site site) {
    this.entry = entry;
    this.site = site;
  }

  /**
   * Makes one on a port, or on any that is free; what an earlier one left in that folder, when it
   * was killed, goes first.
   */
  static Scratch open(
      ServerFoundation foundation,
      Sites sites,
      String name,
      Path folder,
      boolean program,
      Optional<Integer> http) {
    ServerEntry entry = foundation.entryInPassing(name, folder, program, http);
    if (Files.isDirectory(folder)) {
      new Scratch(entry, sites.site(entry)).close();
    }
    foundation.build(entry);
    return new Scratch(entry, sites.site(entry));
  }

  ServerEntry entry() {
    return entry;
  }

  Site site() {
    return site;
  }

  @Override
  public void close() {
    new ServerService(site, Progress.NONE, new Interrupts()).stop();
    try {
      Trees.delete(entry.folder());
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}

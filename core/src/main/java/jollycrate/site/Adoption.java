package jollycrate.site;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import jollycrate.app.ServerEntry;
import jollycrate.app.Unit;
import jollycrate.foresee.Finding;
import jollycrate.server.Occupant;
import jollycrate.server.SelfDescription;

/**
 * A server that people have, as it was found.
 *
 * @param entry as it stands in {@code servers.toml} from now on
 * @param kind label of its kind and version
 * @param told what it says of itself, with where that stands
 * @param standing applications that stand there, whoever put them there
 * @param findings what somebody should know or mend
 */
public record Adoption(
    ServerEntry entry,
    String kind,
    List<SelfDescription.Told> told,
    List<Occupant> standing,
    List<Finding> findings) {

  /**
   * What is wanted.
   *
   * @param host machine on which it is, as it is described; empty: this one
   * @param folder of the server
   * @param installation empty: the folder itself, or what its process runs from
   * @param http empty: as its own configuration tells
   * @param unit of systemd that it runs by; empty: as its process tells
   * @param java home of the Java it runs on; empty: that of its process, else ours
   */
  public record Wanted(
      String name,
      Optional<String> host,
      Path folder,
      Optional<Path> installation,
      Optional<Integer> http,
      Optional<Unit> unit,
      Optional<Path> java) {}
}

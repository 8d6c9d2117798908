package jollycrate.server;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;

/**
 * What we delivered to a server and still answer for: {@code .jolly/standing.json}.
 *
 * @param folder of the server that this was written for; empty before anything was
 */
public record Standing(String folder, List<Owner> applications) {
  /** The digest that a folder has. */
  public static final String FOLDER = "folder";

  /** As it was read; a record that lists nothing at all is none. */
  public Standing {
    applications = List.copyOf(applications);
  }

  /** Nothing was delivered. */
  public static final Standing NONE = new Standing("", List.of());

  /**
   * A piece as we left it.
   *
   * @param digest {@link #FOLDER} for a folder
   */
  public record Held(String digest, Part part) {}

  /**
   * An application that stands.
   *
   * @param description digest of the resolved description
   * @param swap how it took its place
   * @param pieces what it owns, by key
   * @param found top-level names that stood in the server's folder before its first delivery
   */
  public record Owner(
      Placement placement,
      int delivery,
      String description,
      Swap swap,
      SortedMap<String, Held> pieces,
      List<String> found) {
    /** Whether it was stopped: its switch is kept, where no server looks. */
    @JsonIgnore
    public boolean isStopped() {
      return pieces.values().stream().noneMatch(held -> held.part() == Part.SWITCH);
    }

    /** The same with other pieces. */
    public Owner with(SortedMap<String, Held> others) {
      return new Owner(placement, delivery, description, swap, others, found);
    }

    /** The same where it answers by now. */
    public Owner at(Placement now) {
      return new Owner(now, delivery, description, swap, pieces, found);
    }

    /** Name of the application. */
    @JsonIgnore
    public String name() {
      return placement.application();
    }
  }

  /** The application of that name. */
  public Optional<Owner> owner(String name) {
    return applications.stream().filter(owner -> owner.name().equals(name)).findFirst();
  }

  /** Those that are not stopped. */
  @JsonIgnore
  public List<Owner> running() {
    return applications.stream().filter(owner -> !owner.isStopped()).toList();
  }

  /** Applications that own a piece. */
  public List<String> ownersOf(String key) {
    return applications.stream()
        .filter(owner -> owner.pieces().containsKey(key))
        .map(Owner::name)
        .toList();
  }

  /** The same, written for a folder. */
  public Standing in(Path place) {
    return new Standing(place.toString(), applications);
  }

  /** The same with one application in place of its earlier state. */
  public Standing with(Owner owner) {
    List<Owner> all = new ArrayList<>(without(owner.name()).applications);
    all.add(owner);
    return new Standing(folder, List.copyOf(all));
  }

  /** The same without an application. */
  public Standing without(String name) {
    return new Standing(
        folder, applications.stream().filter(owner -> !owner.name().equals(name)).toList());
  }

  /** Every piece by key. */
  @JsonIgnore
  public Map<String, Held> pieces() {
    Map<String, Held> pieces = new TreeMap<>();
    applications.forEach(owner -> pieces.putAll(owner.pieces()));
    return pieces;
  }
}

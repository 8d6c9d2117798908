package jollycrate.host;

import java.nio.file.Path;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** What is going to be read from a host, so that all of it can be asked for at once. */
public final class Glance {
  private final Set<Path> facts = new LinkedHashSet<>();
  private final Set<Part> parts = new LinkedHashSet<>();
  private final Set<Path> folders = new LinkedHashSet<>();
  private final Set<Path> digests = new LinkedHashSet<>();
  private final Set<Path> real = new LinkedHashSet<>();
  private final Set<Path> places = new LinkedHashSet<>();
  private boolean processes;

  /**
   * A part of a file.
   *
   * @param most bytes from the offset on
   */
  public record Part(Path file, long offset, int most) {
    /** Spelled out: a method that Java derives for a record is made at run time, at each start. */
    @Override
    public boolean equals(Object other) {
      return other instanceof Part part
          && file.equals(part.file)
          && offset == part.offset
          && most == part.most;
    }

    @Override
    public int hashCode() {
      return file.hashCode() + 31 * Long.hashCode(offset) + most;
    }
  }

  /** What {@link HostFiles#facts(List)} tells. */
  public Glance facts(Collection<Path> paths) {
    facts.addAll(paths);
    return this;
  }

  /** What {@link HostFiles#facts(Path)} and {@link HostFiles#whole} tell. */
  public Glance wholes(Collection<Path> files, int most) {
    files.forEach(file -> part(file, 0, most + 1));
    return this;
  }

  /** What {@link HostFiles#facts(Path)} and {@link HostFiles#read} tell. */
  public Glance part(Path file, long offset, int most) {
    facts.add(file);
    parts.add(new Part(file, offset, most));
    return this;
  }

  /** What {@link HostFiles#facts(Path)} and {@link HostFiles#list} tell. */
  public Glance lists(Collection<Path> them) {
    facts.addAll(them);
    folders.addAll(them);
    return this;
  }

  /** What {@link HostFiles#digest} tells. */
  public Glance digests(Collection<Path> files) {
    digests.addAll(files);
    return this;
  }

  /** What {@link HostFiles#facts(Path)} and {@link HostFiles#real} tell. */
  public Glance real(Collection<Path> paths) {
    facts.addAll(paths);
    real.addAll(paths);
    return this;
  }

  /**
   * What is to be known of a folder before anything is put there: {@link HostFiles#free}, {@link
   * HostFiles#writable} and {@link HostProcesses#accountIn}.
   */
  public Glance place(Path folder) {
    places.add(folder);
    return this;
  }

  /** All of another one too. */
  public Glance and(Glance other) {
    facts.addAll(other.facts);
    parts.addAll(other.parts);
    folders.addAll(other.folders);
    digests.addAll(other.digests);
    real.addAll(other.real);
    places.addAll(other.places);
    processes = processes || other.processes;
    return this;
  }

  /** Who runs and who listens. */
  public Glance processes() {
    processes = true;
    return this;
  }

  /** Paths whose facts are wanted. */
  public List<Path> facts() {
    return List.copyOf(facts);
  }

  /** Parts of files that are wanted. */
  public Set<Part> parts() {
    return parts;
  }

  /** Folders whose children are wanted. */
  public Set<Path> folders() {
    return folders;
  }

  /** Files whose digests are wanted. */
  public Set<Path> digests() {
    return digests;
  }

  /** Paths whose real ones are wanted. */
  public Set<Path> real() {
    return real;
  }

  /** Folders where something is to be put. */
  public Set<Path> places() {
    return places;
  }

  /** Whether processes are wanted. */
  public boolean wantsProcesses() {
    return processes;
  }
}

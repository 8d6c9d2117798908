package jollycrate.stock;

import java.nio.file.Path;

/** Names of our own files in a server's folder. */
public record Records(Path folder) {
  /** Which application owns which piece. */
  public Path standing() {
    return folder.resolve("standing.json");
  }

  /** The same as it will be once the delivery is proven. */
  public Path standingNext() {
    return folder.resolve("standing.next.json");
  }

  /** The process of the server. */
  public Path process() {
    return folder.resolve("process.json");
  }

  /** Where a new process notes its id. */
  public Path processNote() {
    return folder.resolve("process.pid");
  }

  /** The delivery under way, or the last one. */
  public Path journal() {
    return folder.resolve("journal.jsonl");
  }

  /** A line for each delivery. */
  public Path deliveries() {
    return folder.resolve("deliveries.jsonl");
  }

  /** What was told of each delivery. */
  public Path told() {
    return folder.resolve("told");
  }

  /** The switch of an application that is stopped. */
  public Path stopped(String application) {
    return folder.resolve("stopped-" + application);
  }

  /** What earlier releases are made of. */
  public Path releases() {
    return folder.resolve("releases");
  }

  /** Who changes the server now. */
  public Path lock() {
    return folder.resolve("lock");
  }

  /** Files as they were before the delivery under way. */
  public Path backups() {
    return folder.resolve("backup");
  }
}

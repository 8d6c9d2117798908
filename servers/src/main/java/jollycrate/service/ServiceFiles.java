package jollycrate.service;

import java.nio.file.Path;
import jollycrate.server.Placement;
import jollycrate.server.Server;

/** Where everything of a service stands in its folder. */
final class ServiceFiles {
  /** What the file that says how a program runs ends with. */
  static final String RUN = ".program";

  private final Path folder;

  ServiceFiles(Server server) {
    this.folder = server.folder();
  }

  Path keeper() {
    return folder.resolve("keeper/keeper.jar");
  }

  Path releases() {
    return folder.resolve("releases");
  }

  Path settings() {
    return folder.resolve("settings");
  }

  Path logs() {
    return folder.resolve("log");
  }

  Path run() {
    return folder.resolve("programs");
  }

  /** What runs on a port. */
  Path run(int port) {
    return run().resolve(port + RUN);
  }

  /** Where the program on a port noted its process. */
  Path note(int port) {
    return folder.resolve("state").resolve(port + ".pid");
  }

  /** The file by which a placement runs. */
  Path run(Placement placement) {
    return run(placement.route().direct().getPort());
  }

  /** The end of a log, which is written to. */
  Path log(String name) {
    return logs().resolve(name + ".log");
  }
}

package jollycrate.tomcat;

import java.nio.file.Path;
import jollycrate.server.Server;

/** The two listeners of a server, each an engine of its own with its own application folder. */
enum Listener {
  MAIN("main", "Catalina", "webapps"),
  ADMIN("admin", "admin", "webapps-admin");

  private static final String HOST = "localhost";

  private final String label;
  private final String engine;
  private final String applications;

  Listener(String label, String engine, String applications) {
    this.label = label;
    this.engine = engine;
    this.applications = applications;
  }

  String label() {
    return label;
  }

  String engine() {
    return engine;
  }

  Path descriptors(Server server) {
    return server.folder().resolve("conf").resolve(engine).resolve(HOST);
  }

  Path applications(Server server) {
    return server.folder().resolve(applications);
  }
}

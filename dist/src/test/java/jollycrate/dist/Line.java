package jollycrate.dist;

import java.io.IOException;
import java.nio.file.Path;

/** The lines of Tomcat that are in use. */
enum Line {
  /** For javax.servlet. */
  NINE("9.0", "javax", "tomcat-9.tar.gz"),
  /** That of the practice server. */
  TEN("10.1", "jakarta", "tomcat-10.tar.gz"),
  ELEVEN("11.0", "jakarta", "tomcat-11.tar.gz");

  /** What holds for the oldest and the newest; this one is in use everywhere else. */
  static final String IN_BETWEEN = "TEN";

  private static final Path ARCHIVES = Path.of(System.getProperty("jolly.lines")).toAbsolutePath();

  final String version;
  final String namespace;
  private final String archive;

  Line(String version, String namespace, String archive) {
    this.version = version;
    this.namespace = namespace;
    this.archive = archive;
  }

  /** The other namespace of the servlet API. */
  String otherNamespace() {
    return namespace.equals("javax") ? "jakarta" : "javax";
  }

  /** As it is fetched. */
  Path archive() {
    return ARCHIVES.resolve(archive);
  }

  /** The sample with a server of this line. */
  Workshop open(Path folder) throws IOException {
    Workshop workshop =
        switch (this) {
          case NINE -> Workshop.open(folder, "--servlet-api", "javax");
          case TEN -> Workshop.open(folder);
          case ELEVEN -> Workshop.open(folder, "--installation", archive().toString());
        };
    return namespace.equals("javax")
        ? workshop.edit("pack = \"war\"", "pack = \"javax\"")
        : workshop;
  }
}

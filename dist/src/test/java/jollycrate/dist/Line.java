package jollycrate.dist;

import java.io.IOException;
import java.nio.file.Path;

/** The lines of servers that are in use, and what is made of one. */
enum Line {
  /** For javax.servlet. */
  NINE("9.0", "javax", "tomcat-9.tar.gz"),
  /** That of the practice server. */
  TEN("10.1", "jakarta", "tomcat-10.tar.gz"),
  ELEVEN("11.0", "jakarta", "tomcat-11.tar.gz"),
  /** Tomcat 10.0 with an enterprise part; fetched with {@code -Dkinds=all} only. */
  TOMEE("9.0.0", "jakarta", "tomee-9.tar.gz"),
  /** For both namespaces. */
  JETTY("12.1", "jakarta", "jetty-12.tar.gz"),
  /** A whole enterprise server; fetched with {@code -Dkinds=all} only. */
  WILDFLY("39", "jakarta", "wildfly-39.zip"),
  /** By features of a web profile; fetched with {@code -Dkinds=all} only. */
  LIBERTY("26", "jakarta", "liberty-26.zip"),
  /** Archives in a folder; fetched with {@code -Dkinds=all} only. */
  GLASSFISH("7.0", "jakarta", "glassfish-7.zip");

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

  /** Whether it serves applications for either. */
  boolean servesBoth() {
    return this == JETTY;
  }

  /** Whether a password of a database may begin or end with a blank. */
  boolean keepsBlanks() {
    return this != WILDFLY;
  }

  /** Whether an application fails that maps a URL to a servlet that nobody declares. */
  boolean mindsUnknownServlets() {
    return this != WILDFLY;
  }

  /** Whether it tells how many connections of a data source are in use. */
  boolean countsConnections() {
    return this != WILDFLY && this != GLASSFISH;
  }

  /** Whether it tells in which state an application is, and how many sessions it has. */
  boolean tellsStates() {
    return this != GLASSFISH;
  }

  /** Whether another password of a user counts while it runs. */
  boolean readsUsersLive() {
    return this != GLASSFISH;
  }

  /** Whether its log tells what a request of an application threw. */
  boolean logsRequests() {
    return this != GLASSFISH;
  }

  /** Whether its persistence units work on data sources that are described. */
  boolean persists() {
    return this == WILDFLY || this == LIBERTY || this == GLASSFISH;
  }

  /** Whether it has a second listener, for loopback alone. */
  boolean hasAdmin() {
    return this != GLASSFISH;
  }

  /** How people call it. */
  String label() {
    return switch (this) {
          case NINE, TEN, ELEVEN -> "Tomcat ";
          case TOMEE -> "TomEE ";
          case JETTY -> "Jetty ";
          case WILDFLY -> "WildFly ";
          case LIBERTY -> "Open Liberty ";
          case GLASSFISH -> "GlassFish ";
        }
        + version;
  }

  /** As it is fetched. */
  Path archive() {
    return ARCHIVES.resolve(archive);
  }

  /** The sample with a server of this line. */
  Workshop open(Path folder) throws IOException {
    Workshop workshop =
        switch (this) {
          case NINE -> Workshop.withUsers(folder, "--servlet-api", "javax");
          case TEN -> Workshop.withUsers(folder);
          case ELEVEN, TOMEE, JETTY, WILDFLY, LIBERTY, GLASSFISH ->
              Workshop.withUsers(folder, hasAdmin(), "--installation", archive().toString());
        };
    return namespace.equals("javax")
        ? workshop.edit("pack = \"war\"", "pack = \"javax\"")
        : workshop;
  }
}

package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.UserPrincipalLookupService;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.file.Trees;
import jollycrate.host.Needs;

/** A PostgreSQL server of its own on loopback; it does not run as root. */
final class Postgres implements AutoCloseable {
  private static final Path VERSIONS = Path.of("/usr/lib/postgresql");
  private static final String NOBODY_ELSE = "postgres";

  final String url;
  private final Path folder = Files.createTempDirectory("postgres");
  private final Started started;

  /** Starts it, where it is installed; else the test is passed over. */
  Postgres() throws IOException, InterruptedException {
    Optional<Path> programs = programs();
    Needs.here(programs.isPresent(), "no PostgreSQL here");
    boolean root = "root".equals(System.getProperty("user.name"));
    if (root) {
      UserPrincipalLookupService users = folder.getFileSystem().getUserPrincipalLookupService();
      Files.setOwner(folder, users.lookupPrincipalByName(NOBODY_ELSE));
    }
    Path data = folder.resolve("data");
    List<String> init =
        as(root, programs.get().resolve("initdb"), "-A", "trust", "-U", "spokes", "--no-sync");
    init.addAll(List.of("-E", "UTF8", "-D", data.toString()));
    Process made = new ProcessBuilder(init).redirectErrorStream(true).start();
    String told = new String(made.getInputStream().readAllBytes());
    assertThat(made.waitFor()).as(told).isZero();
    int port = Workshop.freePort();
    List<String> start = as(root, programs.get().resolve("postgres"), "-D", data.toString());
    start.addAll(List.of("-h", "127.0.0.1", "-p", "" + port, "-k", folder.toString(), "-F"));
    started = Started.saying("ready to accept connections", folder, Map.of("LC_ALL", "C"), start);
    url = "jdbc:postgresql://127.0.0.1:" + port + "/postgres?user=spokes";
  }

  private static Optional<Path> programs() throws IOException {
    if (!Files.isDirectory(VERSIONS)) {
      return Optional.empty();
    }
    try (Stream<Path> versions = Files.list(VERSIONS)) {
      return versions
          .map(version -> version.resolve("bin"))
          .filter(bin -> Files.isExecutable(bin.resolve("initdb")))
          .findFirst();
    }
  }

  private static List<String> as(boolean root, Path program, String... arguments) {
    List<String> command = new ArrayList<>();
    if (root) {
      command.addAll(List.of("setpriv", "--reuid=" + NOBODY_ELSE, "--regid=" + NOBODY_ELSE));
      command.add("--clear-groups");
    }
    command.add(program.toString());
    command.addAll(List.of(arguments));
    return command;
  }

  /** The first value of a query. */
  String value(String query) throws SQLException {
    return value(url, query);
  }

  /** The same of any database. */
  static String value(String url, String query) throws SQLException {
    try (Connection connection = DriverManager.getConnection(url);
        ResultSet rows = connection.createStatement().executeQuery(query)) {
      return rows.next() ? rows.getString(1) : "no row";
    }
  }

  @Override
  public void close() {
    started.close();
    Trees.discard(folder);
  }
}

package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermission;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A password with every character that anything could stumble over. */
class ValuesIT {
  private static final String PASSWORD = "p&${user.name}<\"'ü";
  private static final List<String> FORMS =
      List.of(PASSWORD, "p&amp;${user.name}", "p\\u0026", "p&amp;$");

  @TempDir Path folder;

  @Test
  void reachesTheDatabaseUnchangedAndNobodyElse() throws IOException, SQLException {
    try (Workshop workshop = Workshop.open(folder)) {
      workshop.program.with("SPOKES_DB_PASSWORD", PASSWORD).with("ROBIN_PASSWORD", PASSWORD);
      List<String> told = new ArrayList<>();
      told.add(workshop.ends(0, "deploy", "--to", "bench", "--dry-run").all());
      told.add(workshop.ends(0, "deploy", "--to", "bench").all());
      told.add(workshop.ends(0, "deploy", "--to", "bench", "--json").all());
      workshop.edit("1.4.0", "1.6.0");
      told.add(workshop.ends(5, "deploy", "--to", "bench").all());
      long server = workshop.processes().get(0);
      told.add(Files.readString(Path.of("/proc/" + server + "/environ")));
      told.add(Files.readString(Path.of("/proc/" + server + "/cmdline")));
      told.add(workshop.log());
      told.addAll(recordsAndOpenFiles(workshop.server));
      workshop.program.with("SPOKES_DB_PASSWORD", "another");
      told.add(workshop.ends(0, "undeploy", "spokes", "--from", "bench", "--dry-run").all());
      for (String text : told) {
        assertThat(text).doesNotContain(FORMS);
      }
      workshop.ok("server", "stop", "bench");
      String url = "jdbc:h2:file:" + workshop.server.resolve("data/spokes") + ";IFEXISTS=TRUE";
      try (Connection connection = DriverManager.getConnection(url, "spokes", PASSWORD)) {
        assertThat(connection.isValid(1)).isTrue();
      }
    }
  }

  /** Texts of our records, and of every file that others than its owner may read. */
  private static List<String> recordsAndOpenFiles(Path server) throws IOException {
    List<String> texts = new ArrayList<>();
    try (Stream<Path> files = Files.walk(server)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        boolean open = Files.getPosixFilePermissions(file).contains(PosixFilePermission.GROUP_READ);
        if (open || file.startsWith(server.resolve(".jolly"))) {
          texts.add(new String(Files.readAllBytes(file), StandardCharsets.UTF_8));
        }
      }
    }
    return texts;
  }
}

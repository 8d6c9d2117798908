package jollycrate.foresee;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Boot;
import jollycrate.boot.BootUnit;
import jollycrate.host.Account;
import jollycrate.host.Ran;
import jollycrate.server.Piece;
import jollycrate.server.Server;

/** The unit that is to start the server with the machine is sound, and will be obeyed. */
final class BootRule implements Rule {
  private static final int NOT_FOUND = 127;

  /** What is verified has to be a file whose name is a unit's. */
  private static final String VERIFY =
      """
      folder=$(mktemp -d) || exit
      trap 'rm -rf "$folder"' EXIT
      cat > "$folder/$0"
      systemd-analyze verify "$folder/$0"
      verdict=$?
      systemd-analyze security --offline=true --no-pager "$folder/$0" 2>/dev/null
      exit $verdict
      """;

  @Override
  public List<Finding> look(Scene scene) {
    Server server = scene.stock().server();
    Path unit = BootUnit.file(server);
    Optional<Piece.WholeFile> piece =
        scene.wanted().pieces().stream()
            .filter(Piece.WholeFile.class::isInstance)
            .map(Piece.WholeFile.class::cast)
            .filter(file -> file.path().equals(unit))
            .findFirst();
    if (server.boot().isEmpty() || piece.isEmpty()) {
      return List.of();
    }
    List<Finding> findings = new ArrayList<>(verified(scene, piece.get()));
    String name = unit.getFileName().toString();
    if (!there(scene, "-d", Path.of("/run/systemd/system"))) {
      findings.add(
          Finding.note(
              name, "systemd does not run on its machine: nothing will start the unit there"));
    }
    String user = scene.stock().access().owner();
    boolean lingers = there(scene, "-e", Path.of("/var/lib/systemd/linger", user));
    if (server.boot().get() == Boot.USER && !lingers) {
      findings.add(
          Finding.warn(
              name,
              "units of user " + user + " start at a log-in, not with the machine",
              "",
              "Run 'loginctl enable-linger " + user + "' once"));
    }
    if (server.boot().get() == Boot.SYSTEM && user.equals(Account.ROOT)) {
      findings.add(
          Finding.warn(
              name,
              "it will run as root",
              server.folder() + " belongs to root",
              "Give the folder to a user of its own"));
    }
    if (!server.runtime().declared().isEmpty()) {
      findings.add(
          Finding.warn(
              name,
              "nobody knows these variables when the machine starts: "
                  + String.join(", ", server.runtime().declared()),
              "'env' and 'variables' in servers.toml",
              "Hand them over in [program] of jolly.toml, or write what needs them into files"));
    }
    return findings;
  }

  private static List<Finding> verified(Scene scene, Piece.WholeFile unit) {
    String name = unit.path().getFileName().toString();
    if (scene.stock().server().runtime().supply().isPresent()) {
      return List.of(Finding.note(name, "not verified: its Java is not there yet"));
    }
    Ran ran = scene.commands().run(List.of("sh", "-c", VERIFY, name), text(unit));
    if (ran.exit() == NOT_FOUND) {
      return List.of(Finding.note(name, "not verified: there is no systemd-analyze there"));
    }
    List<String> faults = ran.errors().lines().filter(line -> line.contains(name)).toList();
    if (ran.exit() != 0 && faults.isEmpty()) {
      return List.of(Finding.note(name, "not verified: " + ran.errors().strip()));
    }
    if (!faults.isEmpty()) {
      return List.of(
          Finding.blocker(
              name,
              "systemd would not take this unit",
              String.join("; ", faults),
              "Fix 'java', 'folder' or 'boot' of the server in servers.toml"));
    }
    String last = ran.output().lines().reduce((a, b) -> b).orElse("");
    String level = last.replaceFirst(".*: (\\d+\\.\\d+).*", "$1");
    return List.of(
        Finding.note(
            name,
            "systemd-analyze accepts it"
                + (level.matches("[\\d.]+") ? ", exposure level " + level + " of 10" : "")));
  }

  private static String text(Piece.WholeFile unit) {
    try (InputStream text = unit.content().open()) {
      return new String(text.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static boolean there(Scene scene, String kind, Path path) {
    return scene.commands().run(List.of("/usr/bin/test", kind, path.toString())).exit() == 0;
  }
}

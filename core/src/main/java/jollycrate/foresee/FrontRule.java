package jollycrate.foresee;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.app.DataSource;
import jollycrate.app.Front;
import jollycrate.host.HostException;
import jollycrate.host.Ran;
import jollycrate.server.Swap;

/** The web server before a service runs, its configuration is sound, and we may write it. */
final class FrontRule implements Rule {
  private static final int MOST_EVIDENCE = 300;

  @Override
  public List<Finding> look(Scene scene) {
    Optional<Front> front = scene.stock().server().front();
    if (front.isEmpty()) {
      return List.of();
    }
    List<Finding> findings = new ArrayList<>();
    sound(scene, front.get()).ifPresent(findings::add);
    if (scene.stock().listening().get(front.get().port()) == null) {
      findings.add(
          Finding.blocker(
              front.get().address().toString(),
              "no web server listens there",
              "",
              "Start it, or fix 'address' of the front in servers.toml"));
    }
    scene
        .acceptors()
        .unread()
        .ifPresent(
            why ->
                findings.add(
                    Finding.blocker(
                        front.get().address().toString(),
                        "it could not be told when this web server sends requests to the new"
                            + " release",
                        why,
                        "Run as a user who may see its processes (root, as a rule)")));
    Path config = front.get().config();
    boolean there = scene.stock().at(config).exists();
    if (there && !scene.writable().test(config)
        || there && !scene.writable().test(config.getParent())) {
      findings.add(
          Finding.blocker(
              config.toString(),
              "this user may not change it",
              "",
              "Run as its owner, or let the front read a file that this user may write"));
    }
    if (scene.wanted().swap() == Swap.BESIDE_THEN_SWITCH && scene.owner().isPresent()) {
      scene.order().application().dataSources().stream()
          .filter(FrontRule::letsOneIn)
          .forEach(source -> findings.add(onlyOne(source)));
    }
    return findings;
  }

  private static Optional<Finding> sound(Scene scene, Front front) {
    String command = String.join(" ", front.test());
    try {
      Ran ran = scene.commands().run(front.test());
      String words = (ran.errors() + ran.output()).strip();
      return ran.exit() == 0
          ? Optional.empty()
          : Optional.of(
              Finding.blocker(
                  front.address().toString(),
                  "its configuration is wrong already, before anything of ours",
                  words.substring(0, Math.min(MOST_EVIDENCE, words.length())),
                  "Fix it until '" + command + "' passes"));
    } catch (HostException e) {
      return Optional.of(
          Finding.blocker(
              front.address().toString(),
              "its syntax test cannot be run",
              e.getMessage(),
              "Fix 'test' of the front in servers.toml"));
    }
  }

  /** A database file of H2, HSQLDB or Derby, which one process holds for itself. */
  private static boolean letsOneIn(DataSource source) {
    String url = source.url().toLowerCase(Locale.ROOT);
    boolean embedded =
        Stream.of("jdbc:h2:", "jdbc:hsqldb:file:", "jdbc:derby:").anyMatch(url::startsWith);
    boolean shared =
        Stream.of(":mem:", ":tcp:", ":ssl:", "auto_server=true", "derby://")
            .anyMatch(url::contains);
    return embedded && !shared;
  }

  private static Finding onlyOne(DataSource source) {
    return Finding.blocker(
        source.jndiName(),
        "only one process can open this database file, and two releases are to run side by side",
        source.url(),
        "Use a database server, or leave out 'front' and 'beside' in servers.toml: then the old"
            + " release ends before the new one starts");
  }
}

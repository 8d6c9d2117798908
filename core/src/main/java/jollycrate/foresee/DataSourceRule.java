package jollycrate.foresee;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import jollycrate.app.DataSource;
import jollycrate.app.Nearest;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactKind;
import jollycrate.artifact.ArtifactReader;
import jollycrate.stock.ConnectionTrial;

/** Every declared data source is described, its driver is there, and a connection comes about. */
final class DataSourceRule implements Rule {
  private static final Pattern VERSION = Pattern.compile("(?:-\\d[\\w.-]*)?\\.jar$");

  @Override
  public List<Finding> look(Scene scene) {
    List<DataSource> described = scene.order().application().dataSources();
    List<Finding> findings = new ArrayList<>();
    for (Artifact.Declared declared : scene.order().artifact().web().dataSources()) {
      if (described.stream().noneMatch(source -> source.jndiName().equals(declared.name()))) {
        findings.add(undescribed(declared, described));
      }
    }
    for (DataSource source : described) {
      findings.addAll(look(scene, source));
    }
    return findings;
  }

  private static Finding undescribed(Artifact.Declared declared, List<DataSource> described) {
    Optional<String> near =
        Nearest.to(declared.name(), described.stream().map(DataSource::jndiName).toList());
    return Finding.blocker(
        declared.name(),
        "the application asks for this data source, and nobody describes it",
        declared.where(),
        near.map(name -> "Did you mean '" + name + "', which is described? Else add").orElse("Add")
            + " [datasource.\""
            + declared.name()
            + "\"] with url, user, password and driver to"
            + " jolly.toml");
  }

  private static List<Finding> look(Scene scene, DataSource source) {
    List<Finding> driver = driver(source);
    if (!driver.isEmpty()) {
      return driver;
    }
    List<Finding> findings = new ArrayList<>(twice(scene, source));
    boolean declared =
        scene.order().artifact().web().dataSources().stream()
            .anyMatch(name -> name.name().equals(source.jndiName()));
    boolean handed =
        scene.order().application().program().dataSources().containsKey(source.jndiName());
    if (scene.order().artifact().kind() == ArtifactKind.EXECUTABLE_JAR && !handed) {
      findings.add(
          Finding.warn(
              source.jndiName(),
              "described, but nothing hands it over to the program",
              "",
              "Say in [program.datasource.\""
                  + source.jndiName()
                  + "\"] how it is told url, user and password"));
    } else if (!declared && !handed && scene.order().artifact().faults().isEmpty()) {
      findings.add(
          Finding.note(
              source.jndiName(),
              "described, but the artifact does not declare it; code may still look it up"));
    }
    String password = scene.order().databasePasswords().getOrDefault(source.jndiName(), "");
    findings.add(connection(scene, source, scene.trial().connect(source, password)));
    return findings;
  }

  private static List<Finding> driver(DataSource source) {
    Path driver = source.driver();
    String fix = "Fix 'driver' of [datasource.\"" + source.jndiName() + "\"]";
    if (!Files.isRegularFile(driver)) {
      return List.of(
          Finding.blocker(source.jndiName(), "there is no driver at " + driver, "", fix));
    }
    try {
      boolean found = source.driverClass().isPresent() || !ArtifactReader.drivers(driver).isEmpty();
      return found
          ? List.of()
          : List.of(
              Finding.blocker(
                  source.jndiName(),
                  "no JDBC driver announces itself in " + driver,
                  "no META-INF/services/java.sql.Driver inside",
                  fix + ", or name its class with 'driver-class'"));
    } catch (IOException e) {
      return List.of(
          Finding.blocker(
              source.jndiName(), "the driver " + driver + " is no readable archive", "", fix));
    }
  }

  /** A driver in the application besides the server's is another class of the same name. */
  private static List<Finding> twice(Scene scene, DataSource source) {
    String driver = source.driver().getFileName().toString();
    String library = VERSION.matcher(driver).replaceFirst("");
    return scene.order().artifact().layout().libraries().stream()
        .map(Artifact.Library::path)
        .filter(path -> path.startsWith("WEB-INF/lib/"))
        .filter(
            path ->
                VERSION
                    .matcher(path.substring(path.lastIndexOf('/') + 1))
                    .replaceFirst("")
                    .equals(library))
        .map(
            path ->
                Finding.warn(
                    source.jndiName(),
                    "the application brings the driver along too, and the server has its own",
                    path + " besides " + driver,
                    "Leave it out of the archive, as with <scope>provided</scope> in a pom.xml"))
        .toList();
  }

  /** A release that takes the place of another is expected to find that one's data. */
  private static Finding newDatabase(Scene scene, DataSource source) {
    String name = source.jndiName();
    boolean replaces = scene.owner().isPresent() && !scene.accepted().contains(name);
    return replaces
        ? Finding.blocker(
            name,
            "there is no database file, so this release would begin with a new, empty database",
            source.url(),
            "Fix 'url', or bring the file there; if that is what you want: --accept " + name)
        : Finding.note(name, "the database file is not there yet; whoever connects first makes it");
  }

  private static Finding connection(Scene scene, DataSource source, ConnectionTrial.Result tried) {
    String name = source.jndiName();
    return switch (tried.outcome()) {
      case CONNECTED, NO_ROW -> Finding.note(name, "connected to " + tried.detail());
      case UNTRIED -> Finding.note(name, "not tried: there is no Java there yet that could");
      case NOT_THERE_YET -> newDatabase(scene, source);
      case CUT_OFF ->
          Finding.note(
              name,
              "the database file was cut off while it was written, so no connection was tried;"
                  + " the application's own repairs it");
      case IN_USE ->
          !scene.stock().process().isStopped()
              ? Finding.note(name, "the database file is open in this very server")
              : Finding.blocker(
                  name,
                  "another program has the database file open",
                  tried.detail(),
                  "End that program, or use another database");
      case FAILED ->
          Finding.blocker(name, tried.message(), source.url() + ": " + tried.detail(), tried.fix());
    };
  }
}

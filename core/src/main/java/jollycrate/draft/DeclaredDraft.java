package jollycrate.draft;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.artifact.Artifact;
import jollycrate.artifact.ArtifactKind;

/** Drafts what an application's classes and descriptors declare: path, data, users, access. */
final class DeclaredDraft {
  private static final int MOST_CHECKS = 20;
  private static final int MOST_GUARDED = 10;
  private static final List<String> SCRIPTS =
      List.of("sql", "db", "database", "src/main/sql", "src/main/db");

  private final Path folder;
  private final DraftText text;
  private final Optional<Driver> driver;

  /**
   * @param folder of the project
   * @param driver the JDBC driver among its libraries
   */
  DeclaredDraft(Path folder, DraftText text, Optional<Driver> driver) {
    this.folder = folder;
    this.text = text;
    this.driver = driver;
  }

  /** Writes what one declares. */
  void write(Insight insight) {
    Artifact artifact = insight.artifact();
    if (artifact.kind() != ArtifactKind.EXECUTABLE_JAR
        && artifact.kind() != ArtifactKind.LIBRARY_JAR) {
      text.table("app");
      text.text("path", "/" + artifactPath(), "by its name; / for the root");
    }
    artifact.web().dataSources().forEach(this::dataSource);
    if (!artifact.web().dataSources().isEmpty()) {
      scripts();
    }
    if (!artifact.web().roles().isEmpty()) {
      text.table("users");
      text.mark("robin = \"env:ROBIN_PASSWORD\"", "who logs in, and where the passwords stand");
      text.table("roles");
      artifact.web().roles().forEach(this::role);
    }
    artifact.web().guarded().stream().limit(MOST_GUARDED).forEach(this::access);
    insight.sure().stream().limit(MOST_CHECKS).forEach(this::check);
  }

  private void role(String role) {
    text.value(DraftText.key(role), "[]", "web.xml or an annotation");
    text.ask("who has the role '" + role + "'");
  }

  private String artifactPath() {
    return text.found().stream()
        .filter(one -> one.key().equals("name"))
        .map(one -> one.value().replace("\"", ""))
        .findFirst()
        .orElse("");
  }

  private void dataSource(Artifact.Declared declared) {
    text.table("datasource." + DraftText.key(declared.name()));
    text.note(declared.where());
    String url = driver.map(Driver::url).orElse("jdbc:...");
    text.mark("url = " + DraftText.quoted(url), "its JDBC URL");
    text.mark("user = \"...\"", "who logs in");
    text.mark("password = \"env:DB_PASSWORD\"", "where the password stands");
    if (driver.isPresent()) {
      Driver known = driver.get();
      text.text("driver", "maven:" + known.group() + ":" + known.artifact(), known.where());
    } else {
      text.mark("driver = \"drivers/driver.jar\"", "the archive that holds the JDBC driver");
    }
  }

  /** Scripts beside the application; those that a library of it applies stand elsewhere. */
  private void scripts() {
    SCRIPTS.stream()
        .filter(name -> holdsScripts(folder.resolve(name)))
        .findFirst()
        .ifPresent(
            name -> {
              text.gap();
              text.mark(
                  "[[before]]\n" + DraftText.MARK + "sql = " + DraftText.quoted(name + "/*.sql"),
                  "whether "
                      + name
                      + "/*.sql are applied to the database, each once, before a release");
            });
  }

  private static boolean holdsScripts(Path place) {
    if (!Files.isDirectory(place)) {
      return false;
    }
    try (Stream<Path> files = Files.list(place)) {
      return files.anyMatch(file -> file.toString().endsWith(".sql"));
    } catch (IOException e) {
      return false;
    }
  }

  private void access(Artifact.Guarded guarded) {
    List<String> paths =
        guarded.patterns().stream()
            .filter(pattern -> pattern.matches("/[^*{}]*(/\\*)?"))
            .map(pattern -> pattern.replaceFirst("\\*$", ""))
            .toList();
    if (!paths.isEmpty()) {
      text.table("[[access]]");
      text.value("paths", DraftText.list(paths), guarded.where());
      text.value("denied", "[\"anyone\"]", "who is not logged in");
      if (!guarded.roles().isEmpty()) {
        text.mark(
            "allowed = [\"robin\"]",
            "who should see " + String.join(" ", paths) + ": users with " + guarded.roles());
      }
    }
  }

  private void check(Artifact.Endpoint endpoint) {
    text.table("[[check]]");
    text.text("name", endpoint.pattern() + " answers", "");
    text.text("get", endpoint.pattern(), endpoint.where());
  }
}

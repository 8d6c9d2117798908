package jollycrate.app;

import java.io.IOException;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;

/** Reads {@code [datasource]}. */
final class DataSourceSection {
  private static final String HOME =
      Matcher.quoteReplacement(System.getProperty("user.home") + "/");
  private static final int MOST_CONNECTIONS = 10;

  private final Section all;

  DataSourceSection(Section all) {
    this.all = all;
  }

  List<DataSource> read() {
    List<DataSource> sources = new ArrayList<>();
    for (String name : all.keys()) {
      sources.add(dataSource(name, all.section(name)));
    }
    return sources;
  }

  /**
   * The JNDI name of a data source that is described; the only one unless told. What is wrong is
   * said, and then it is empty.
   */
  static Optional<String> named(Section section, String key, List<DataSource> sources) {
    List<String> names = sources.stream().map(DataSource::jndiName).toList();
    Optional<String> told = section.text(key);
    told.filter(name -> !names.contains(name))
        .ifPresent(
            name ->
                section.problem(
                    key, "there is no [datasource.\"" + name + "\"]", Section.fixFor(name, names)));
    if (told.isEmpty() && names.size() != 1) {
      section.missing(
          key,
          names.isEmpty()
              ? "Describe the data source as [datasource.\"NAME\"] first"
              : "Name the data source, like " + key + " = \"" + names.get(0) + "\"");
    }
    return told.isPresent() ? told.filter(names::contains) : names.stream().findFirst();
  }

  private DataSource dataSource(String name, Section section) {
    Optional<String> url = section.text("url");
    if (url.isEmpty() && !section.has("url")) {
      section.missing("url", "Give its JDBC URL");
    } else if (url.isPresent() && !url.get().startsWith("jdbc:")) {
      section.problem("url", "'" + url.get() + "' is no JDBC URL", "It begins with \"jdbc:\"");
    }
    Optional<String> driver = section.text("driver");
    if (driver.isEmpty() && !section.has("driver")) {
      section.missing("driver", "Name the archive that holds the JDBC driver");
    }
    Section pool = section.section("pool");
    long most = pool.number("max", 1, 10_000).orElse((long) MOST_CONNECTIONS);
    Duration wait = pool.duration("wait").orElse(Duration.ofSeconds(5));
    pool.end();
    DataSource source =
        new DataSource(
            name,
            url.orElse(""),
            section.text("user").orElse(""),
            section.reference("password"),
            driver(section, driver.orElse("unnamed")),
            section.text("driver-class"),
            (int) most,
            wait,
            List.of());
    section.end();
    return source;
  }

  /**
   * The archive of a driver: coordinates, a path, one that begins with {@code ~}, or a pattern for
   * one file.
   */
  private Path driver(Section section, String written) {
    if (MavenCoordinates.isMeantBy(written)) {
      try {
        return Path.of(MavenCoordinates.of(written).toString());
      } catch (IllegalArgumentException e) {
        section.problem("driver", "'" + written + "' is no coordinate", e.getMessage());
        return Path.of("unnamed");
      }
    }
    Path named = section.folder("driver").resolve(written.replaceFirst("^~/", HOME)).normalize();
    if (!written.contains("*")) {
      return named;
    }
    try {
      List<Path> found = FilePattern.files(Path.of("/"), named.toString());
      if (found.size() == 1) {
        return found.get(0);
      }
      section.problem(
          "driver",
          found.isEmpty() ? "no file matches '" + written + "'" : "several files match: " + found,
          "Name the archive that holds the JDBC driver");
    } catch (NoSuchFileException e) {
      section.problem(
          "driver", "there is no folder '" + e.getFile() + "'", "Name the archive of the driver");
    } catch (IOException | IllegalArgumentException e) {
      section.problem(
          "driver",
          "'" + written + "' cannot be searched: " + e.getMessage(),
          "Write it like \"lib/h2-*.jar\"");
    }
    return named;
  }
}

package jollycrate.build;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.MavenCoordinates;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Setting;
import jollycrate.host.Host;

/** Finds the JDBC drivers that are named by Maven coordinates. */
public final class Drivers {
  private final Host host;
  private final Setting setting;
  private final Asking asking;

  private Drivers(Host host, Setting setting, Asking asking) {
    this.host = host;
    this.setting = setting;
    this.asking = asking;
  }

  /**
   * The same application with archives in place of coordinates.
   *
   * @throws NotDescribedException when the project has no such library
   */
  public static Application found(
      Host host, Setting setting, Application application, Asking asking) {
    if (application.dataSources().stream().noneMatch(s -> s.coordinates().isPresent())) {
      return application;
    }
    Drivers drivers = new Drivers(host, setting, asking);
    return application.withDataSources(
        application.dataSources().stream()
            .map(source -> drivers.found(source, application))
            .toList());
  }

  private DataSource found(DataSource source, Application application) {
    return source
        .coordinates()
        .map(named -> source.drivenBy(archive(named, application.file().orElseThrow())))
        .orElse(source);
  }

  private Path archive(MavenCoordinates named, Path description) {
    Path folder = description.toAbsolutePath().getParent();
    if (named.version().isPresent()) {
      return asking.repositories(folder).file(named);
    }
    Optional<Path> library =
        new MavenLibraries(host, folder, setting.data(), asking).library(named);
    return library.orElseThrow(
        () ->
            new NotDescribedException(
                "Cannot find the driver '"
                    + named
                    + "': it is no library of the Maven project beside "
                    + description
                    + ". Add it to pom.xml, or name its version, like "
                    + named
                    + ":1.0"));
  }
}

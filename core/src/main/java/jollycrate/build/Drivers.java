package jollycrate.build;

import java.nio.file.Path;
import java.util.List;
import java.util.function.Consumer;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Setting;
import jollycrate.host.Host;

/** Finds the JDBC drivers that are named as libraries of the Maven project. */
public final class Drivers {
  private Drivers() {}

  /** The same application with archives in place of such names. */
  public static Application found(
      Host host, Setting setting, Application application, Consumer<String> doing) {
    if (application.dataSources().stream().noneMatch(source -> source.library().isPresent())) {
      return application;
    }
    Path folder = application.file().orElseThrow().toAbsolutePath().getParent();
    MavenLibraries project = new MavenLibraries(host, folder, setting.data(), doing);
    List<Path> libraries = project.ofEveryScope().orElse(List.of());
    return application.withDataSources(
        application.dataSources().stream()
            .map(
                source ->
                    source
                        .library()
                        .map(library -> source.drivenBy(archive(library, libraries, application)))
                        .orElse(source))
            .toList());
  }

  private static Path archive(
      DataSource.Library library, List<Path> libraries, Application application) {
    String folder = "/" + library.group().replace('.', '/') + "/" + library.artifact() + "/";
    return libraries.stream()
        .filter(file -> file.toString().contains(folder))
        .findFirst()
        .orElseThrow(
            () ->
                new NotDescribedException(
                    "Cannot find the driver 'maven:"
                        + library.group()
                        + ":"
                        + library.artifact()
                        + "': it is no library of the Maven project beside "
                        + application.file().orElseThrow()
                        + ". Add it to pom.xml, or name the archive"));
  }
}

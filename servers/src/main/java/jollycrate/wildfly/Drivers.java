package jollycrate.wildfly;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import jollycrate.app.DataSource;
import jollycrate.artifact.ArtifactReader;
import jollycrate.file.Digests;
import jollycrate.host.Content;
import jollycrate.hosting.ArchivesIn;
import jollycrate.hosting.Delivered;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;

/**
 * Drivers of data sources. On a WildFly that we made each is a module, and a line of the
 * configuration; on one that people have it is an archive of the application, deployed beside it.
 */
final class Drivers {
  private static final String MODULES = "jolly/drivers";

  private final Server server;
  private final Delivered delivered;
  private final Set<String> names = new TreeSet<>();
  private final List<Piece> fragments = new ArrayList<>();

  Drivers(Server server, Delivered delivered) {
    this.server = server;
    this.delivered = delivered;
  }

  /** Lines of the configuration. */
  List<Piece> fragments() {
    return fragments;
  }

  private static String calledByContent(Path file, Content archive) {
    return Delivered.baseName(file).replaceAll("[^A-Za-z0-9-]", "_")
        + "-"
        + Digests.brief(archive.digest());
  }

  /** Makes it a module; the name under which it is known then. */
  String asModule(DataSource source) {
    Content archive = Content.of(source.driver());
    String name = calledByContent(source.driver(), archive);
    if (!names.add(name)) {
      return name;
    }
    Path folder = server.folder().resolve("modules");
    for (Path part : Path.of(MODULES, name, "main")) {
      folder = folder.resolve(part);
      delivered.folder(folder);
    }
    String module = MODULES.replace('/', '.') + "." + name;
    String jar = name + ".jar";
    delivered.open(folder.resolve(jar), archive);
    delivered.open(folder.resolve("module.xml"), Content.of(moduleXml(module, jar)));
    fragments.add(
        new Piece.Fragment(
            Configuration.file(server),
            Configuration.driverKey(name),
            Configuration.driver(name, module, Delivered.driverClass(source)),
            Part.SUPPORT,
            PickUp.RESTART));
    return name;
  }

  private static String moduleXml(String module, String jar) {
    return """
        <module xmlns="urn:jboss:module:1.9" name="%s">
          <resources><resource-root path="%s"/></resources>
          <dependencies><module name="java.se"/><module name="jdk.unsupported"/></dependencies>
        </module>
        """
        .formatted(module, jar);
  }

  /** Whether an archive announces one driver; one that cannot be read is told elsewhere. */
  static boolean isAlone(DataSource source) {
    try {
      return ArtifactReader.drivers(source.driver()).size() == 1;
    } catch (IOException unreadable) {
      return true;
    }
  }

  /** Deploys it for an application alone; the name under which it is known then. */
  String asArchive(DataSource source, String application, ArchivesIn archives) {
    Content archive = Content.of(source.driver());
    String name = application + "-" + calledByContent(source.driver(), archive) + ".jar";
    if (names.add(name)) {
      delivered.companion(archives.folder().resolve(name), archive);
    }
    return name;
  }

  /** Those that are deployed. */
  List<Path> deployed(ArchivesIn archives) {
    return names.stream()
        .filter(name -> name.endsWith(".jar"))
        .map(archives.folder()::resolve)
        .toList();
  }
}

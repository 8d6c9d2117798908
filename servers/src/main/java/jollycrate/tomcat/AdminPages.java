package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import jollycrate.host.HostFiles;
import jollycrate.server.Server;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** The pages by which people administer a Tomcat, as its installation brings them. */
final class AdminPages {
  private static final String ANY = "org.apache.catalina.";
  private static final String XML = ".xml";

  /** Servlets that they are made of. */
  private static final Set<String> SERVLETS =
      Set.of(
          ANY + "manager.ManagerServlet",
          ANY + "manager.HTMLManagerServlet",
          ANY + "manager.host.HostManagerServlet",
          ANY + "manager.host.HTMLHostManagerServlet");

  /**
   * One application of such pages.
   *
   * @param name base name of its context path
   * @param folder its files
   * @param descriptor the file with its context
   * @param apart whether that file is what puts it there, and not the folder by itself
   */
  record Page(String name, Path folder, Path descriptor, boolean apart) {
    /** Its context path. */
    String path() {
      return "/" + name.replace('#', '/');
    }
  }

  private final HostFiles files;
  private final Server server;
  private final ServerXml configuration;

  AdminPages(HostFiles files, Server server, ServerXml configuration) {
    this.files = files;
    this.server = server;
    this.configuration = configuration;
  }

  /** Those that a listener serves. */
  List<Page> on(Listener listener) {
    List<Page> described =
        files.list(listener.descriptors()).stream()
            .filter(file -> file.getFileName().toString().endsWith(XML))
            .flatMap(file -> described(listener, file).stream())
            .toList();
    Stream<Page> byFolder =
        files.list(listener.applications()).stream()
            .filter(folder -> !listener.ignores(folder.getFileName().toString()))
            .map(folder -> new Page(folder.getFileName().toString(), folder, own(folder), false))
            .filter(page -> described.stream().noneMatch(it -> it.name().equals(page.name())));
    return Stream.concat(described.stream(), byFolder)
        .filter(page -> administers(page.folder()))
        .toList();
  }

  /** Those that whoever reaches the listener's port reaches. */
  List<Page> open(Listener listener) {
    return on(listener).stream().filter(page -> !isRestricted(page)).toList();
  }

  /** Whether a file stands there. */
  boolean stands(Path file) {
    return files.facts(files.real(file)).isFile();
  }

  private static Path own(Path folder) {
    return folder.resolve("META-INF/context.xml");
  }

  private Optional<Page> described(Listener listener, Path file) {
    String fileName = file.getFileName().toString();
    String name = fileName.substring(0, fileName.length() - XML.length());
    return root(file)
        .map(root -> listener.applications().resolve(configuration.value(root, "docBase", name)))
        .map(folder -> new Page(name, folder.normalize(), file, true));
  }

  private boolean administers(Path folder) {
    return root(folder.resolve("WEB-INF/web.xml")).stream()
        .flatMap(root -> root.descendants("servlet-class").stream())
        .anyMatch(servlet -> SERVLETS.contains(servlet.text()));
  }

  private boolean isRestricted(Page page) {
    return root(page.descriptor()).stream()
        .flatMap(root -> root.children("Valve").stream())
        .map(valve -> valve.value("className", ""))
        .anyMatch(name -> name.startsWith(ANY + "valves.Remote") && !name.endsWith("IpValve"));
  }

  /** The root element of a file; none where there is no such file, or none that can be read. */
  private Optional<XmlElement> root(Path file) {
    byte[] bytes = files.read(files.real(file), 0, XmlDocument.MOST_BYTES);
    try {
      return bytes.length == 0
          ? Optional.empty()
          : Optional.of(XmlDocument.parse(server.shown(file), bytes).root());
    } catch (XmlException e) {
      return Optional.empty();
    }
  }
}

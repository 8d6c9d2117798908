package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import jollycrate.host.HostFiles;
import jollycrate.secret.WellKnown;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.Server;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;
import jollycrate.xml.XmlException;

/** Who may log in to a Tomcat that somebody set up, and to the administration pages it ships. */
final class Administration {
  private static final int MOST_BYTES = 4 << 20;
  private static final String ANY = "org.apache.catalina.";

  /** Servlets that pages of administration are made of. */
  private static final Set<String> PAGES =
      Set.of(
          ANY + "manager.ManagerServlet",
          ANY + "manager.HTMLManagerServlet",
          ANY + "manager.host.HostManagerServlet",
          ANY + "manager.host.HTMLHostManagerServlet");

  /** Applications that an installation brings to look at. */
  private static final List<String> SAMPLES = List.of("examples", "docs");

  /** A digest, with or without salt and rounds before it. */
  private static final Pattern HASH =
      Pattern.compile("(?:[0-9a-fA-F]+\\$\\d+\\$)?[0-9a-fA-F]{32,}");

  private final HostFiles files;
  private final Server server;
  private final List<Doubt> doubts = new ArrayList<>();

  Administration(HostFiles files, Server server) {
    this.files = files;
    this.server = server;
  }

  /** What somebody should know or fix. */
  List<Doubt> doubts(ServerXml configuration) {
    new UserRealms(configuration).files().forEach(this::users);
    configuration.main().ifPresent(this::pages);
    return List.copyOf(doubts);
  }

  private void users(Path file) {
    String shown = server.shown(file);
    try {
      byte[] bytes = files.whole(file, MOST_BYTES);
      if (bytes.length > 0) {
        new UsersFile(XmlDocument.parse(shown, bytes)).users().forEach(this::user);
      }
    } catch (XmlException e) {
      doubts.add(new Doubt(shown, "who may log in cannot be read", e.getMessage(), "Fix the file"));
    }
  }

  private void user(UsersFile.User user) {
    String may = user.roles().isEmpty() ? "" : " (" + String.join(", ", user.roles()) + ")";
    if (WellKnown.contains(user.password(), user.name())) {
      doubts.add(
          new Doubt(
              "user " + user.name(),
              "the password of this user" + may + " is one that everybody tries first",
              user.where(),
              "Give another: jolly server users "
                  + server.name()
                  + " password "
                  + user.name()
                  + ". Or 'jolly server harden "
                  + server.name()
                  + "' locks it"));
    } else if (!HASH.matcher(user.password()).matches()) {
      doubts.add(
          new Doubt(
              "user " + user.name(),
              "the password of this user" + may + " stands there in plain text",
              user.where(),
              "'jolly server harden " + server.name() + "' stores a salted hash of it"));
    }
  }

  private void pages(Listener listener) {
    for (Path folder : openPages(listener)) {
      doubts.add(
          new Doubt(
              "/" + folder.getFileName(),
              "the server's own administration pages are open to whoever reaches its port",
              server.shown(folder),
              "'jolly server harden " + server.name() + "' lets in this machine only"));
    }
    String samples =
        files.list(listener.applications()).stream()
            .filter(folder -> SAMPLES.contains(folder.getFileName().toString()))
            .map(server::shown)
            .collect(Collectors.joining(", "));
    if (!samples.isEmpty()) {
      doubts.add(
          new Doubt(
              "samples",
              "applications stand there that the installation brings to look at",
              samples,
              "Take them away where others than developers come"));
    }
  }

  /** Folders of administration pages that whoever reaches the server's port reaches. */
  List<Path> openPages(Listener listener) {
    return files.list(listener.applications()).stream()
        .filter(this::administers)
        .filter(folder -> !isRestricted(listener, folder))
        .toList();
  }

  /** Whether a file stands there. */
  boolean stands(Path file) {
    return files.facts(files.real(file)).isFile();
  }

  /** What says who reaches an application: its own descriptor counts more than one inside it. */
  Path descriptor(Listener listener, Path folder) {
    Path own = listener.descriptors().resolve(folder.getFileName() + ".xml");
    return stands(own) ? own : folder.resolve("META-INF/context.xml");
  }

  private boolean administers(Path folder) {
    return roots(folder.resolve("WEB-INF/web.xml"))
        .flatMap(root -> root.descendants("servlet-class").stream())
        .anyMatch(servlet -> PAGES.contains(servlet.text()));
  }

  private boolean isRestricted(Listener listener, Path folder) {
    return roots(descriptor(listener, folder))
        .flatMap(root -> root.children("Valve").stream())
        .map(valve -> valve.value("className", ""))
        .anyMatch(name -> name.startsWith(ANY + "valves.Remote") && !name.endsWith("IpValve"));
  }

  /** The root element of a file; none where there is no such file, or none that can be read. */
  private Stream<XmlElement> roots(Path file) {
    byte[] bytes = files.read(file, 0, MOST_BYTES);
    try {
      return bytes.length == 0
          ? Stream.empty()
          : Stream.of(XmlDocument.parse(file.toString(), bytes).root());
    } catch (XmlException e) {
      return Stream.empty();
    }
  }
}

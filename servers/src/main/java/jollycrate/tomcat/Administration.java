package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.host.HostFiles;
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

  /** Those that are tried first by whoever breaks in, and stand in instructions. */
  private static final Set<String> WELL_KNOWN =
      Set.of(
          "",
          "admin",
          "changeit",
          "manager",
          "password",
          "root",
          "s3cret",
          "secret",
          "test",
          "tomcat",
          "123456",
          "<must-be-changed>");

  private final HostFiles files;
  private final Server server;
  private final List<Doubt> doubts = new ArrayList<>();

  Administration(HostFiles files, Server server) {
    this.files = files;
    this.server = server;
  }

  /** What somebody should know or fix. */
  List<Doubt> doubts(ServerXml configuration) {
    configuration.userFiles().forEach(this::users);
    configuration.main().ifPresent(this::pages);
    return List.copyOf(doubts);
  }

  private void users(Path file) {
    String shown = server.shown(file);
    try {
      XmlDocument document = XmlDocument.parse(shown, files.whole(file, MOST_BYTES));
      for (XmlElement user : document.root().children("user")) {
        String name = user.value("username", user.value("name", ""));
        String where = shown + ":" + document.lineOf(user.start());
        user(name, user.value("password", ""), user.value("roles", ""), where);
      }
    } catch (XmlException e) {
      doubts.add(new Doubt(shown, "who may log in cannot be read", e.getMessage(), "Fix the file"));
    }
  }

  private void user(String name, String password, String roles, String where) {
    boolean known =
        WELL_KNOWN.contains(password.toLowerCase(Locale.ROOT)) || password.equalsIgnoreCase(name);
    String may = roles.isBlank() ? "" : " (" + roles.replaceAll("\\s*,\\s*", ", ") + ")";
    if (known) {
      doubts.add(
          new Doubt(
              "user " + name,
              "the password of this user" + may + " is one that everybody tries first",
              where,
              "Give the user another one, or take the user out"));
    } else if (!HASH.matcher(password).matches()) {
      doubts.add(
          new Doubt(
              "user " + name,
              "the password of this user" + may + " stands there in plain text",
              where,
              "Store a salted hash, and name its CredentialHandler in the Realm of"
                  + " conf/server.xml"));
    }
  }

  private void pages(Listener listener) {
    List<String> samples = new ArrayList<>();
    for (Path folder : files.list(listener.applications())) {
      String name = folder.getFileName().toString();
      if (SAMPLES.contains(name)) {
        samples.add(server.shown(folder));
      } else if (administers(folder) && !isRestricted(listener, folder)) {
        doubts.add(
            new Doubt(
                "/" + name,
                "the server's own administration pages are open to whoever reaches its port",
                server.shown(folder),
                "Take them away, or let in loopback only by a RemoteCIDRValve in their"
                    + " META-INF/context.xml"));
      }
    }
    if (!samples.isEmpty()) {
      doubts.add(
          new Doubt(
              "samples",
              "applications stand there that the installation brings to look at",
              String.join(", ", samples),
              "Take them away where others than developers come"));
    }
  }

  private boolean administers(Path folder) {
    return roots(folder.resolve("WEB-INF/web.xml"))
        .flatMap(root -> root.descendants("servlet-class").stream())
        .anyMatch(servlet -> PAGES.contains(servlet.text()));
  }

  /** Its own descriptor counts more than the one inside it. */
  private boolean isRestricted(Listener listener, Path folder) {
    Path own = listener.descriptors().resolve(folder.getFileName() + ".xml");
    Path inside = folder.resolve("META-INF/context.xml");
    return roots(files.facts(own).isFile() ? own : inside)
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

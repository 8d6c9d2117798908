package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import jollycrate.host.HostFiles;
import jollycrate.secret.WellKnown;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.Server;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlException;

/** Who may log in to a Tomcat that somebody set up, and to the administration pages it ships. */
final class Administration {

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
    AdminPages pages = new AdminPages(files, server, configuration);
    configuration.main().ifPresent(listener -> pages(pages, listener));
    return List.copyOf(doubts);
  }

  private void users(Path file) {
    String shown = server.shown(file);
    try {
      byte[] bytes = files.whole(file, XmlDocument.MOST_BYTES);
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

  private void pages(AdminPages pages, Listener listener) {
    for (AdminPages.Page page : pages.open(listener)) {
      doubts.add(
          new Doubt(
              page.path(),
              "the server's own administration pages are open to whoever reaches its port",
              server.shown(page.folder()),
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
}

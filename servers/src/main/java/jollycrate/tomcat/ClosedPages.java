package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.host.Content;
import jollycrate.host.HostFiles;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Wanted;
import jollycrate.tomcat.AdminPages.Page;
import jollycrate.xml.Splice;
import jollycrate.xml.XmlDocument;
import jollycrate.xml.XmlElement;

/**
 * Keeps the administration pages of a Tomcat from whoever reaches its port: they let in its own
 * machine only, or are served by the admin listener in place of the port for everybody.
 */
final class ClosedPages {
  private static final String IGNORE = "deployIgnore";
  private static final String LOOPBACK_ONLY =
      "<Valve className=\"org.apache.catalina.valves.RemoteCIDRValve\""
          + " allow=\"127.0.0.0/8,::1/128\"/>";

  private final Stock stock;
  private final Server server;
  private final ServerXml configuration;
  private final AdminPages pages;
  private final Edits edits;
  private final List<Piece.WholeFile> moved = new ArrayList<>();
  private final List<Path> gone = new ArrayList<>();
  private final List<String> ignored = new ArrayList<>();
  private final List<Doubt> done = new ArrayList<>();
  private final List<Wanted.Refused> refused = new ArrayList<>();
  private final List<Doubt> left = new ArrayList<>();

  ClosedPages(HostFiles files, Stock stock, ServerXml configuration, Edits edits) {
    this.stock = stock;
    this.server = stock.server();
    this.configuration = configuration;
    this.pages = new AdminPages(files, server, configuration);
    this.edits = edits;
  }

  /** Closes what a listener serves, or moves it to the admin listener. */
  void close(Listener listener, boolean moves) {
    if (!moves) {
      pages.open(listener).forEach(this::restrict);
      return;
    }
    Optional<Listener> admin = configuration.admin().filter(it -> !configuration.servesBoth());
    if (admin.isEmpty()) {
      refuse(
          "there is no admin listener of its own to move them to",
          "'jolly server change " + server.name() + " admin=PORT' makes one");
    } else if (!configuration.adminKnowsUsers()) {
      refuse(
          "the admin listener has no Realm, so nobody could log in to them there",
          "Give its Engine in conf/server.xml the Realm that the other one has");
    } else {
      move(listener, admin.get());
    }
  }

  /** Context descriptors of what is served elsewhere from now on. */
  List<Piece.WholeFile> moved() {
    return moved;
  }

  /** Context descriptors that served them before. */
  List<Path> gone() {
    return gone;
  }

  /** What keeps them from being moved. */
  List<Wanted.Refused> refused() {
    return refused;
  }

  List<Doubt> done() {
    return done;
  }

  List<Doubt> left() {
    return left;
  }

  private void restrict(Page page) {
    if (!pages.stands(page.descriptor())) {
      left.add(
          new Doubt(
              page.path(),
              "the server's own administration pages are open, and have no descriptor",
              server.shown(page.folder()),
              "Take them away"));
      return;
    }
    XmlDocument document = edits.document(page.descriptor());
    edits.add(
        page.descriptor(),
        document.inserting(document.root(), "  " + LOOPBACK_ONLY + document.lineEnd()),
        PickUp.RESTART);
    done.add(
        new Doubt(
            page.path(),
            "the server's own administration pages are open to whoever reaches its port",
            server.shown(page.folder()),
            "Whoever comes from this machine only"));
  }

  private void refuse(String message, String fix) {
    refused.add(new Wanted.Refused("administration pages", message, fix));
  }

  private void move(Listener from, Listener admin) {
    for (Page page : pages.on(from)) {
      Path to = admin.descriptors().resolve(page.name() + ".xml");
      if (pages.stands(to)) {
        left.add(
            new Doubt(
                page.path(),
                "the admin listener has an application at this path already",
                server.shown(to),
                "Take one of them away"));
      } else if (isHidden(from, page)) {
        move(page, to);
      }
    }
    if (!ignored.isEmpty()) {
      XmlElement host = configuration.mainHost().orElseThrow();
      String names = String.join("|", ignored);
      String all = from.ignored().isEmpty() ? names : "(?:" + from.ignored() + ")|" + names;
      edits.add(edits.serverXml().setting(host, IGNORE, all));
    }
  }

  /** Makes sure that the folder of a page is not served by itself; false when it cannot be kept. */
  private boolean isHidden(Listener from, Page page) {
    if (!page.folder().getParent().equals(from.applications())) {
      return true;
    }
    Optional<XmlElement> host = configuration.mainHost();
    if (host.filter(it -> !it.value(IGNORE, "").contains("${")).isEmpty()) {
      left.add(
          new Doubt(
              page.path(),
              "what its Host ignores is set somewhere else",
              host.map(configuration::where).orElse(""),
              "Let it ignore '" + page.name() + "' there"));
      return false;
    }
    ignored.add(page.folder().getFileName().toString().replaceAll("[^\\w-]", "\\\\$0"));
    return true;
  }

  private void move(Page page, Path to) {
    XmlDocument document =
        pages.stands(page.descriptor())
            ? edits.document(page.descriptor())
            : XmlDocument.parse(page.name(), "<Context privileged=\"true\"/>\n");
    Splice place = document.setting(document.root(), "docBase", page.folder().toString());
    moved.add(
        new Piece.WholeFile(
            to,
            Content.of(document.with(List.of(place)).bytes()),
            stock.access().with("rw-r-----"),
            Part.OWN,
            PickUp.RESTART));
    if (page.apart()) {
      gone.add(page.descriptor());
    }
    done.add(
        new Doubt(
            page.path(),
            "the server's own administration pages are served to everybody",
            server.shown(page.folder()),
            "On the admin listener alone, where they see the applications of that listener"));
  }
}

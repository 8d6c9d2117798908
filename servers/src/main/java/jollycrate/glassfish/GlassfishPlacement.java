package jollycrate.glassfish;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.EnvEntry;
import jollycrate.artifact.Artifact;
import jollycrate.hosting.ArchivesIn;
import jollycrate.hosting.Delivered;
import jollycrate.hosting.DerivedWar;
import jollycrate.hosting.HashedUsers;
import jollycrate.hosting.InnerDescriptor;
import jollycrate.hosting.PersistenceUnits;
import jollycrate.hosting.Refusals;
import jollycrate.secret.Secrets;
import jollycrate.server.Order;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.server.Swap;
import jollycrate.server.Wanted;

/**
 * What one order needs on a GlassFish: the archive itself, which carries where it answers and its
 * data sources; drivers and users, which the server reads when it starts.
 */
final class GlassfishPlacement {
  private static final Duration NOTICE = Duration.ofSeconds(3);
  private static final String WEB = "WEB-INF/web.xml";
  private static final String NO_WEB =
      "<web-app xmlns=\"https://jakarta.ee/xml/ns/jakartaee\" version=\"6.0\">\n</web-app>\n";
  private static final String NO_DESCRIPTOR = "<glassfish-web-app>\n</glassfish-web-app>\n";
  private static final String DESCRIPTOR = "WEB-INF/glassfish-web.xml";

  /** How it was called once, and may be still. */
  private static final String OLD_DESCRIPTOR = "WEB-INF/sun-web.xml";

  private static final Set<String> WELCOME = Set.of("/index.html", "/index.htm", "/index.jsp");
  private static final Set<String> ROOTS = Set.of("", "/", "/*");

  private static final List<String> TRACES = List.of("_deployed", "_pending");
  private static final List<String> MARKS =
      List.of("_deployFailed", "_undeployed", "_undeployFailed");

  private final Stock stock;
  private final Server server;
  private final Order order;
  private final Application application;
  private final Delivered delivered;
  private final DerivedWar war;
  private final Refusals refusals = new Refusals();
  private final Refusals doubts = new Refusals();
  private final List<Piece> fragments = new ArrayList<>();
  private final Map<String, String> hidden = new HashMap<>();

  GlassfishPlacement(Stock stock, Order order) {
    this.stock = stock;
    this.server = stock.server();
    this.order = order;
    this.application = order.application();
    this.delivered = new Delivered(stock, order);
    this.war = new DerivedWar(order.artifact());
  }

  Wanted wanted() {
    refusals.refuse(new GlassfishKind().contradictions(stock));
    refuseListeners();
    ArchivesIn archives = GlassfishFiles.archives(server);
    String path =
        application.context().path().orElseGet(() -> archives.pathOf(order.artifact().file()));
    descriptors(path);
    users();
    ArchivesIn.refuseFolder(order, server, refusals);
    Path archive = archives.of(application.name());
    delivered.live(archive, war.content());
    Placement placement =
        new Placement(
            delivered.release(),
            Placement.Route.at(Placement.MAIN, path, server.ports()),
            archive,
            made(archives, archive),
            new Placement.Timing(NOTICE, application.context().startsWithin()));
    doubtRoot();
    return new Wanted(
            placement, delivered.pieces(), Swap.LIVE, refusals.all(), doubts.all(), hidden)
        .after(fragments);
  }

  private void descriptors(String path) {
    boolean old = war.has(OLD_DESCRIPTOR) && !war.has(DESCRIPTOR);
    String place = old ? OLD_DESCRIPTOR : DESCRIPTOR;
    InnerDescriptor descriptor = InnerDescriptor.of(war, place, NO_DESCRIPTOR, refusals);
    InnerDescriptor web = InnerDescriptor.of(war, WEB, NO_WEB, refusals);
    descriptor.set("context-root", path.isEmpty() ? "/" : path);
    dataSources(descriptor, web);
    application.context().entries().forEach(entry -> entry(web, entry));
    war.put(place, descriptor.text());
    if (web.says()) {
      war.put(WEB, web.text());
    }
  }

  private static Placement.Made made(ArchivesIn archives, Path archive) {
    Path note = archives.folder().resolve(GlassfishFiles.NOTED).resolve(archive.getFileName());
    List<Path> traces = new ArrayList<>(archives.beside(archive, TRACES));
    traces.add(note);
    return new Placement.Made(traces, List.of(), archives.beside(archive, MARKS));
  }

  /** What is deployed by a file, it deploys on each of its listeners and hosts. */
  private void refuseListeners() {
    if (order.onAdminPort()) {
      refusals.refuse(
          server.name(), "a GlassFish has no admin listener", "Leave out --on-admin-port");
    }
    if (application.context().host().isPresent()) {
      refusals.refuse(
          "host",
          "a GlassFish serves an archive by every name, and cannot keep one to a virtual host",
          "Take 'host' out of [app], or put a web server before it");
    }
  }

  private void dataSources(InnerDescriptor descriptor, InnerDescriptor web) {
    if (application.dataSources().isEmpty()) {
      return;
    }
    ResourcesXml resources = new ResourcesXml();
    if (war.has(ResourcesXml.PATH)) {
      refusals.refuse(
          ResourcesXml.PATH,
          "the archive brings data sources of its own, which would not be there any more",
          "Describe them all in jolly.toml, and take the file out of the archive");
    }
    for (DataSource source : application.dataSources()) {
      String name = source.jndiName();
      String password = order.databasePasswords().getOrDefault(name, "");
      Stream.of(source.url(), source.user(), password).forEach(value -> kept(name, value));
      driver(source);
      resources.add(source, Delivered.driverClass(source), password);
      descriptor.put(
          "resource-ref", "res-ref-name", name, "jndi-name", ResourcesXml.boundAt(source));
      if (!web.has("resource-ref", "res-ref-name", name)) {
        web.put("resource-ref", "res-ref-name", name, "res-type", "javax.sql.DataSource");
      }
    }
    war.put(ResourcesXml.PATH, resources.text());
    new PersistenceUnits(order, war, name -> name).name(refusals);
  }

  private void driver(DataSource source) {
    if (source.driver().toFile().isFile()) {
      delivered.atStart(GlassfishFiles.libraries(server), source.driver());
    }
  }

  private void entry(InnerDescriptor web, EnvEntry entry) {
    String value = delivered.value(entry);
    if (entry.secret().isPresent()) {
      hidden.put(value, Secrets.HIDDEN);
    }
    kept(entry.name(), value);
    web.put(
        "env-entry",
        "env-entry-name",
        entry.name(),
        "env-entry-type",
        delivered.type(entry),
        "env-entry-value",
        value);
  }

  private void kept(String name, String value) {
    if (value.contains("${")) {
      refusals.refuse(
          name,
          "a GlassFish reads what stands in ${...}, so the value would not arrive unchanged",
          "Take another value");
    }
  }

  /** Its check of who may see what takes that path for a pattern, unless a page is behind it. */
  private void doubtRoot() {
    Artifact.Web web = order.artifact().web();
    boolean paged =
        web.endpoints().stream().anyMatch(endpoint -> WELCOME.contains(endpoint.pattern()))
            || WELCOME.stream().anyMatch(page -> war.has(page.substring(1)));
    if (!paged
        && !web.roles().isEmpty()
        && web.endpoints().stream().anyMatch(endpoint -> ROOTS.contains(endpoint.pattern()))) {
      doubts.refuse(
          "/",
          "a GlassFish asks everybody to log in who asks for the root of an application that keeps"
              + " people out of any other page",
          "Map the servlet behind it to /index.html, too: that is what it looks for there");
    }
  }

  private void users() {
    Path file = GlassfishFiles.users(server);
    UserLines lines = new UserLines();
    String standing = stock.text(file).orElse("");
    Map<String, String> earlier = new HashMap<>();
    for (String name : order.userPasswords().keySet()) {
      lines
          .find(standing, name)
          .flatMap(UserLines::hash)
          .ifPresent(hash -> earlier.put(name, hash));
    }
    if (!order.userPasswords().isEmpty()) {
      doubts.refuse(
          "users",
          "a GlassFish keeps passwords as hashes that are quick to guess for whoever reads them",
          "Give people long passwords there, or deliver to a server of another kind");
    }
    HashedUsers users = HashedUsers.of(order, earlier, new GlassfishHash());
    hidden.putAll(users.hidden());
    users.refuseOdd(GlassfishKind.CALLED, refusals);
    for (HashedUsers.HashedUser user : users.users()) {
      fragments.add(
          new Piece.Fragment(
              file, user.name(), UserLines.line(user), Part.SUPPORT, PickUp.RESTART));
    }
  }
}

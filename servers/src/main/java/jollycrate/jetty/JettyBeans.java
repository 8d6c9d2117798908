package jollycrate.jetty;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import jollycrate.host.Bean;
import jollycrate.host.Question;
import jollycrate.server.Inside;
import jollycrate.server.Occupant;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** What a running Jetty tells of its applications: MBeans of its module jmx, and of our pools. */
final class JettyBeans {
  private static final String UNPACKED = "tempDirectory";

  static final List<Question> QUESTIONS =
      List.of(
          new Question("*:type=webappcontext,*", List.of("contextPath", "state", UNPACKED)),
          new Question("*:type=defaultsessioncache,*", List.of("sessionsCurrent")),
          new Question(
              "com.zaxxer.hikari:type=*",
              List.of("ActiveConnections", "IdleConnections", "MaximumPoolSize")));

  private static final Pattern POOL = Pattern.compile("Pool \\((\\S+) (.*)\\)");
  private static final String CONTEXT = "context";

  private final Stock stock;
  private final List<Bean> beans;

  JettyBeans(Stock stock, List<Bean> beans) {
    this.stock = stock;
    this.beans = beans;
  }

  List<Inside> applications() {
    return beans.stream()
        .filter(bean -> bean.key("type").equals("webappcontext"))
        .map(this::application)
        .toList();
  }

  private Inside application(Bean context) {
    String told = context.values().getOrDefault("contextPath", "");
    String path = told.equals("/") ? "" : told;
    String listener = listener(context, path);
    Optional<Long> sessions =
        beans.stream()
            .filter(bean -> bean.key("type").equals("defaultsessioncache"))
            .filter(bean -> bean.key(CONTEXT).equals(context.key(CONTEXT)))
            .findFirst()
            .flatMap(bean -> bean.number("sessionsCurrent"));
    List<Inside.Pool> pools =
        stock.standing().running().stream()
            .map(Standing.Owner::placement)
            .filter(placement -> placement.route().contextPath().equals(path))
            .filter(placement -> placement.route().listener().equals(listener))
            .flatMap(placement -> pools(placement.application()))
            .toList();
    String state = context.values().getOrDefault("state", "unknown");
    return new Inside(listener, path, state, sessions, pools);
  }

  /** One of ours by the folder that it is unpacked in; of others the connector alone is told. */
  private String listener(Bean context, String path) {
    Path unpacked = Path.of(context.values().getOrDefault(UNPACKED, ""));
    boolean admin = context.key(CONTEXT).endsWith("@@" + Placement.ADMIN);
    return stock.standing().running().stream()
        .map(Standing.Owner::placement)
        .filter(placement -> placement.made().traces().contains(unpacked))
        .map(placement -> placement.route().listener())
        .findFirst()
        .or(
            () ->
                new JettyOccupants(stock)
                    .all().stream()
                        .filter(occupant -> occupant.contextPath().equals(path))
                        .map(Occupant::listener)
                        .filter(listener -> listener.equals(Placement.ADMIN) == admin)
                        .findFirst())
        .orElse(Placement.MAIN);
  }

  private Stream<Inside.Pool> pools(String application) {
    return beans.stream()
        .map(bean -> POOL.matcher(bean.key("type")))
        .filter(name -> name.matches() && name.group(1).equals(application))
        .map(this::pool);
  }

  private Inside.Pool pool(Matcher name) {
    Bean pool = named(name.group()).orElseThrow();
    long most =
        named(name.group().replaceFirst("Pool", "PoolConfig"))
            .flatMap(bean -> bean.number("MaximumPoolSize"))
            .orElse(-1L);
    return new Inside.Pool(
        name.group(2),
        pool.number("ActiveConnections").orElse(0L),
        pool.number("IdleConnections").orElse(0L),
        most);
  }

  private Optional<Bean> named(String type) {
    return beans.stream().filter(bean -> bean.key("type").equals(type)).findFirst();
  }
}

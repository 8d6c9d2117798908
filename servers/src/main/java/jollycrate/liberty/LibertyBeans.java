package jollycrate.liberty;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.host.Bean;
import jollycrate.host.Question;
import jollycrate.server.Inside;
import jollycrate.server.Placement;
import jollycrate.server.Standing;
import jollycrate.server.Stock;

/** What a running Open Liberty tells of its applications, by its feature monitor. */
final class LibertyBeans {
  static final List<Question> QUESTIONS =
      List.of(
          new Question(
              "WebSphere:service=com.ibm.websphere.application.ApplicationMBean,name=*",
              List.of("State")),
          new Question("WebSphere:type=SessionStats,name=*", List.of("ActiveCount")),
          new Question(
              "WebSphere:type=ConnectionPoolStats,name=*",
              List.of("ManagedConnectionCount", "FreeConnectionCount", "MaxConnectionsLimit")));

  private static final String NAME = "name";

  private final Stock stock;
  private final List<Bean> beans;

  LibertyBeans(Stock stock, List<Bean> beans) {
    this.stock = stock;
    this.beans = beans;
  }

  List<Inside> applications() {
    return beans.stream()
        .filter(bean -> bean.values().containsKey("State"))
        .flatMap(bean -> standing(bean.key(NAME)).map(placement -> inside(bean, placement)))
        .toList();
  }

  private Stream<Placement> standing(String application) {
    return stock.standing().running().stream()
        .map(Standing.Owner::placement)
        .filter(placement -> placement.application().equals(application));
  }

  private Inside inside(Bean application, Placement placement) {
    Placement.Route route = placement.route();
    String before = DataXml.names(placement.application());
    List<Inside.Pool> pools =
        beans.stream()
            .filter(bean -> bean.key("type").equals("ConnectionPoolStats"))
            .filter(bean -> bean.key(NAME).startsWith(before))
            .map(bean -> pool(bean, named(bean.key(NAME).substring(before.length()))))
            .toList();
    return new Inside(
        route.listener(),
        route.contextPath(),
        application.values().get("State"),
        sessions(route),
        pools);
  }

  /** None was opened before anything is told of them. */
  private Optional<Long> sessions(Placement.Route route) {
    String host = route.listener().equals(Placement.MAIN) ? "default_host" : route.listener();
    String path = route.contextPath().isEmpty() ? "/" : route.contextPath();
    return beans.stream()
        .filter(bean -> bean.key("type").equals("SessionStats"))
        .filter(bean -> bean.key(NAME).equals(host + path))
        .findFirst()
        .map(bean -> bean.number("ActiveCount"))
        .orElse(Optional.of(0L));
  }

  /** Without what tells the release that it is of. */
  private static String named(String told) {
    return told.substring(told.indexOf('/') + 1);
  }

  private static Inside.Pool pool(Bean bean, String name) {
    long all = bean.number("ManagedConnectionCount").orElse(0L);
    long idle = bean.number("FreeConnectionCount").orElse(0L);
    return new Inside.Pool(name, all - idle, idle, bean.number("MaxConnectionsLimit").orElse(-1L));
  }
}

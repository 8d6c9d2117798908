package jollycrate.wildfly;

import java.util.List;
import java.util.Optional;
import jollycrate.host.Bean;
import jollycrate.host.Question;
import jollycrate.server.Inside;
import jollycrate.server.Placement;

/**
 * What a running WildFly tells of its applications. It counts no connections of data sources that
 * stand in archives, so nothing is told of those.
 */
final class WildflyBeans {
  static final List<Question> QUESTIONS =
      List.of(
          new Question("jboss.as:deployment=*", List.of("status")),
          new Question(
              "jboss.as:deployment=*,subsystem=undertow",
              List.of("contextRoot", "server", "virtualHost", "activeSessions")));

  private static final String DEPLOYMENT = "deployment";
  private static final String DEFAULT_HOST = "default-host";
  private static final String STARTED = "STARTED";
  private static final String OK = "OK";

  private final List<Bean> beans;

  WildflyBeans(List<Bean> beans) {
    this.beans = beans;
  }

  List<Inside> applications() {
    return beans.stream()
        .filter(bean -> bean.values().containsKey("contextRoot"))
        .map(this::application)
        .toList();
  }

  private Inside application(Bean web) {
    String root = web.values().get("contextRoot");
    String status =
        beans.stream()
            .filter(bean -> bean.key(DEPLOYMENT).equals(web.key(DEPLOYMENT)))
            .flatMap(bean -> Optional.ofNullable(bean.values().get("status")).stream())
            .findFirst()
            .orElse("unknown");
    return new Inside(
        listener(web),
        root.equals("/") ? "" : root,
        status.equals(OK) ? STARTED : status,
        web.number("activeSessions"),
        List.of());
  }

  private static String listener(Bean web) {
    String host = web.values().getOrDefault("virtualHost", DEFAULT_HOST);
    return host.equals(DEFAULT_HOST) ? Placement.MAIN : host;
  }
}

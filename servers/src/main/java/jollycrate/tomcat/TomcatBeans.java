package jollycrate.tomcat;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.host.Bean;
import jollycrate.host.Question;
import jollycrate.server.Inside;

/** What a running Tomcat tells of its applications: MBeans in the domains of its engines. */
final class TomcatBeans {
  private static final String HOST = "//";

  private final List<Bean> beans;
  private final List<Listener> listeners;

  TomcatBeans(List<Bean> beans, List<Listener> listeners) {
    this.beans = beans;
    this.listeners = listeners;
  }

  static List<Question> questions() {
    return List.of(
        new Question("*:j2eeType=WebModule,*", List.of("stateName")),
        new Question("*:type=Manager,host=*,context=*", List.of("activeSessions")),
        new Question(
            "*:type=DataSource,host=*,context=*,class=javax.sql.DataSource,name=*",
            List.of("numActive", "numIdle", "maxTotal")));
  }

  List<Inside> applications() {
    List<Inside> applications = new ArrayList<>();
    for (Bean module : beans) {
      if (module.key("j2eeType").equals("WebModule")) {
        listenerOf(module)
            .map(listener -> application(listener, module))
            .ifPresent(applications::add);
      }
    }
    return applications;
  }

  /** By its engine and the host in its name, which the folder of descriptors is called by. */
  private Optional<Listener> listenerOf(Bean bean) {
    String name = bean.key("name").substring(HOST.length());
    String host = name.substring(0, name.indexOf('/')).toLowerCase(Locale.ENGLISH);
    List<Listener> ofEngine =
        listeners.stream().filter(listener -> listener.engine().equals(bean.domain())).toList();
    return ofEngine.stream()
        .filter(listener -> listener.descriptors().endsWith(host))
        .findFirst()
        .or(() -> ofEngine.stream().findFirst());
  }

  /** Its name is {@code //host/path}, with {@code ##version} behind it. */
  private Inside application(Listener listener, Bean module) {
    String name = module.key("name").substring(HOST.length());
    String context = name.substring(name.indexOf('/'));
    Optional<Long> sessions =
        of(module, "Manager", context).findFirst().flatMap(bean -> bean.number("activeSessions"));
    List<Inside.Pool> pools = of(module, "DataSource", context).map(TomcatBeans::pool).toList();
    String path = context.replaceFirst("##.*", "");
    return new Inside(
        listener.label(),
        path.equals("/") ? "" : path,
        module.values().getOrDefault("stateName", "unknown"),
        sessions,
        pools);
  }

  private Stream<Bean> of(Bean module, String type, String context) {
    return beans.stream()
        .filter(bean -> bean.domain().equals(module.domain()))
        .filter(bean -> bean.key("type").equals(type) && bean.key("context").equals(context));
  }

  private static Inside.Pool pool(Bean bean) {
    return new Inside.Pool(
        bean.key("name").replace("\"", ""),
        bean.number("numActive").orElse(0L),
        bean.number("numIdle").orElse(0L),
        bean.number("maxTotal").orElse(-1L));
  }
}

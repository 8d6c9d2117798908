package jollycrate.wildfly;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.file.Digests;
import jollycrate.host.Launch;
import jollycrate.hosting.Arguments;
import jollycrate.hosting.HostedLogs;
import jollycrate.server.KindProcesses;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** The one process of a WildFly, which runs by its own modules. */
final class WildflyProcesses implements KindProcesses {
  private static final String MAIN = "org.jboss.as.standalone";
  private static final String HOME = "-Djboss.home.dir=";
  private static final String BASE = "-Djboss.server.base.dir=";
  private static final String MODULES = "modules";

  /** Time that requests get to come to their end when the server stops, in seconds. */
  private static final int PATIENCE = 10;

  private static final int LONGEST_NODE = 23;

  private static final List<String> OPENED =
      List.of(
          "java.base/java.io",
          "java.base/java.lang",
          "java.base/java.lang.invoke",
          "java.base/java.lang.reflect",
          "java.base/java.net",
          "java.base/java.security",
          "java.base/java.util",
          "java.base/java.util.concurrent",
          "java.management/javax.management",
          "java.naming/javax.naming");
  private static final List<String> EXPORTED =
      List.of(
          "java.desktop/sun.awt",
          "java.naming/com.sun.jndi.ldap",
          "java.naming/com.sun.jndi.url.ldap",
          "java.naming/com.sun.jndi.url.ldaps",
          "jdk.naming.dns/com.sun.jndi.dns");

  @Override
  public Launch launch(Stock stock) {
    Server server = stock.server();
    Path home = server.installation();
    Path base = server.folder();
    Standalone configuration = Standalone.of(stock);
    List<String> command = server.javaCommand();
    command.add("-Djava.awt.headless=true");
    command.add("-Dfile.encoding=UTF-8");
    command.add("-Djolly.token=" + Launch.TOKEN);
    command.add(HOME + home);
    command.add(BASE + base);
    if (configuration.isOurs()) {
      command.add("-Djava.io.tmpdir=" + base.resolve("tmp"));
      List.of("config.dir=state", "data.dir=state", "log.dir=logs", "temp.dir=tmp")
          .forEach(folder -> command.add(folder(folder, base)));
    } else {
      command.add("-Dorg.jboss.boot.log.file=" + base.resolve("log/server.log"));
    }
    command.add("-Dlogging.configuration=" + Instance.logging(server).toUri());
    command.add("-Djboss.modules.system.pkgs=org.jboss.byteman");
    OPENED.forEach(name -> command.add("--add-opens=" + name + "=ALL-UNNAMED"));
    EXPORTED.forEach(name -> command.add("--add-exports=" + name + "=ALL-UNNAMED"));
    command.add("-jar");
    command.add(home.resolve("jboss-modules.jar").toString());
    command.add("-mp");
    Path shipped = home.resolve(MODULES);
    command.add(configuration.isOurs() ? base.resolve(MODULES) + ":" + shipped : "" + shipped);
    command.add(MAIN);
    command.add("-Dorg.wildfly.sigterm.suspend.timeout=" + PATIENCE);
    command.addAll(configuration.isOurs() ? ours(server) : configuration.toldAtStart());
    return new Launch(
        command,
        base,
        stock.owned(),
        server.runtime().environment(),
        server.runtime().declared(),
        server.log(HostedLogs.USUAL),
        configuration.isOurs() ? readAtStart(stock) : List.of());
  }

  /** Files of one that people have are rewritten by the server itself. */
  private static List<String> readAtStart(Stock stock) {
    return Stream.of(Configuration.file(stock.server()), Instance.logging(stock.server()))
        .map(file -> Digests.of(stock.texts().getOrDefault(file, new byte[0])))
        .toList();
  }

  private static List<String> ours(Server server) {
    List<String> told = new ArrayList<>();
    told.add("-Djboss.tx.node.id=" + node(server.name()));
    told.add("-Djboss.bind.address=" + server.ports().address());
    told.add("-Djboss.http.port=" + server.ports().http());
    server
        .ports()
        .admin()
        .ifPresent(
            port -> told.addAll(List.of("-Djolly.admin=true", "-Djolly.admin.port=" + port)));
    told.add("--read-only-server-config=" + Configuration.file(server));
    return told;
  }

  private static String folder(String told, Path base) {
    int equals = told.indexOf('=');
    return "-Djboss.server."
        + told.substring(0, equals + 1)
        + base.resolve(told.substring(equals + 1));
  }

  /** By it transactions are told apart from those of other servers. */
  private static String node(String server) {
    return server.substring(0, Math.min(server.length(), LONGEST_NODE));
  }

  @Override
  public boolean isOne(List<String> arguments) {
    return arguments.contains(MAIN);
  }

  @Override
  public Optional<Path> folder(List<String> arguments) {
    return Arguments.paths(arguments, BASE)
        .findFirst()
        .or(() -> installation(arguments).map(home -> home.resolve("standalone")));
  }

  @Override
  public Optional<Path> installation(List<String> arguments) {
    return Arguments.paths(arguments, HOME).findFirst();
  }
}

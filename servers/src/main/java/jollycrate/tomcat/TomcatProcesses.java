package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.file.Digests;
import jollycrate.host.Launch;
import jollycrate.hosting.Arguments;
import jollycrate.hosting.OpenedModules;
import jollycrate.server.KindProcesses;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** The one process of a Tomcat. */
final class TomcatProcesses implements KindProcesses {
  private static final String MAIN = "org.apache.catalina.startup.Bootstrap";

  @Override
  public Launch launch(Stock stock) {
    Server server = stock.server();
    Path home = server.installation();
    Path base = server.folder();
    List<String> command = server.javaCommand();
    command.add("-Djava.util.logging.config.file=" + base.resolve("conf/logging.properties"));
    command.add("-Djava.util.logging.manager=org.apache.juli.ClassLoaderLogManager");
    command.add("-Dcatalina.home=" + home);
    command.add("-Dcatalina.base=" + base);
    command.add("-Djava.io.tmpdir=" + base.resolve("temp"));
    command.add("-Djava.awt.headless=true");
    command.add("-Dfile.encoding=UTF-8");
    command.add("-Dorg.apache.catalina.startup.EXIT_ON_INIT_FAILURE=true");
    ownProperties(server).forEach((name, value) -> command.add("-D" + name + "=" + value));
    if (ServerXml.in(server, stock.texts()).filter(ServerXml::isTomee).isPresent()) {
      command.add("-D" + Tomee.UNPACKS_IN + "=" + Tomee.USUALLY_UNPACKS_IN);
    }
    command.add("-Djolly.token=" + Launch.TOKEN);
    command.addAll(OpenedModules.options());
    command.add("-cp");
    command.add(home.resolve("bin/bootstrap.jar") + ":" + home.resolve("bin/tomcat-juli.jar"));
    command.add(MAIN);
    command.add("start");
    List<String> filesRead =
        readAtStart(server).stream()
            .map(path -> Digests.of(stock.texts().getOrDefault(path, new byte[0])))
            .toList();
    return new Launch(
        command,
        base,
        stock.owned(),
        environment(server),
        server.runtime().declared(),
        server.log(TomcatLogs.USUAL),
        filesRead);
  }

  /** Scripts that start a Tomcat learn from variables what its command line would tell. */
  private static Map<String, String> environment(Server server) {
    if (!server.steering().hasItsOwn()) {
      return server.runtime().environment();
    }
    Map<String, String> environment = new LinkedHashMap<>(server.runtime().environment());
    environment.put("CATALINA_HOME", server.installation().toString());
    environment.put("CATALINA_BASE", server.folder().toString());
    environment.putIfAbsent("JAVA_HOME", server.runtime().java().toString());
    return environment;
  }

  /** What {@code server.xml} of a practice server refers to. */
  static Map<String, String> ownProperties(Server server) {
    Map<String, String> properties = new LinkedHashMap<>();
    properties.put("jolly.http.port", String.valueOf(server.ports().http()));
    properties.put("jolly.http.address", server.ports().address());
    properties.put("jolly.admin.port", String.valueOf(server.ports().admin().orElse(0)));
    return properties;
  }

  @Override
  public boolean isOne(List<String> arguments) {
    return arguments.contains(MAIN);
  }

  /** What starts a Tomcat by hand names its folder only when it is not the installation. */
  @Override
  public Optional<Path> folder(List<String> arguments) {
    return Stream.of("-Dcatalina.base=", "-Dcatalina.home=")
        .flatMap(name -> Arguments.paths(arguments, name))
        .findFirst();
  }

  @Override
  public Optional<Path> installation(List<String> arguments) {
    return Arguments.paths(arguments, "-Dcatalina.home=").findFirst();
  }

  /** Files that a running process has read and does not look at again. */
  static List<Path> readAtStart(Server server) {
    Path conf = server.folder().resolve("conf");
    return List.of(
        conf.resolve("server.xml"),
        conf.resolve("catalina.properties"),
        conf.resolve("logging.properties"),
        Tomee.options(server));
  }
}

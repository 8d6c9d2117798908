package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.file.Digests;
import jollycrate.host.Launch;
import jollycrate.server.KindProcesses;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** The one process of a Tomcat. */
final class TomcatProcesses implements KindProcesses {
  private static final String MAIN = "org.apache.catalina.startup.Bootstrap";
  private static final List<String> MODULES_OPENED =
      List.of(
          "java.base/java.lang",
          "java.base/java.io",
          "java.base/java.util",
          "java.base/java.util.concurrent",
          "java.rmi/sun.rmi.transport");

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
    command.add("-Djolly.http.port=" + server.ports().http());
    command.add("-Djolly.http.address=" + server.ports().address());
    command.add("-Djolly.admin.port=" + server.ports().admin().orElse(0));
    command.add("-Djolly.token=" + Launch.TOKEN);
    MODULES_OPENED.forEach(module -> command.add("--add-opens=" + module + "=ALL-UNNAMED"));
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
        server.runtime().environment(),
        server.runtime().declared(),
        base.resolve("logs/server.log"),
        filesRead);
  }

  @Override
  public String mark() {
    return MAIN;
  }

  /** What starts a Tomcat by hand names its folder only when it is not the installation. */
  @Override
  public Optional<Path> folder(List<String> arguments) {
    return Stream.of("-Dcatalina.base=", "-Dcatalina.home=")
        .flatMap(property -> arguments.stream().filter(argument -> argument.startsWith(property)))
        .map(argument -> Path.of(argument.substring(argument.indexOf('=') + 1)).normalize())
        .findFirst();
  }

  /** Files that a running process has read and does not look at again. */
  static List<Path> readAtStart(Server server) {
    Path conf = server.folder().resolve("conf");
    return List.of(
        conf.resolve("server.xml"),
        conf.resolve("catalina.properties"),
        conf.resolve("logging.properties"));
  }
}

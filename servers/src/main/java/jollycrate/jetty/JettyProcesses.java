package jollycrate.jetty;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.file.Digests;
import jollycrate.host.Launch;
import jollycrate.hosting.HostedLogs;
import jollycrate.hosting.OpenedModules;
import jollycrate.server.KindProcesses;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** The one process of a Jetty. */
final class JettyProcesses implements KindProcesses {
  private static final String PROGRAM = "start.jar";
  private static final String FORKED = "org.eclipse.jetty.xml.XmlConfiguration";
  private static final String ADMIN_XML = "etc/jolly-admin.xml";

  @Override
  public Launch launch(Stock stock) {
    Server server = stock.server();
    Path home = server.installation();
    Path base = server.folder();
    List<String> command = server.javaCommand();
    boolean ours = JettyBase.of(stock).isOurs();
    if (ours) {
      command.add("-Djava.io.tmpdir=" + base.resolve("tmp"));
    }
    command.add("-Djava.awt.headless=true");
    command.add("-Dfile.encoding=UTF-8");
    command.add("-Djolly.token=" + Launch.TOKEN);
    command.addAll(OpenedModules.options());
    command.add("-jar");
    command.add(home.resolve(PROGRAM).toString());
    command.add("jetty.home=" + home);
    command.add("jetty.base=" + base);
    if (ours) {
      command.add("jolly.http.port=" + server.ports().http());
      command.add("jolly.http.address=" + server.ports().address());
      server
          .ports()
          .admin()
          .ifPresent(
              port -> {
                command.add("jolly.admin.port=" + port);
                command.add(ADMIN_XML);
              });
    }
    return new Launch(
        command,
        base,
        stock.owned(),
        server.runtime().environment(),
        server.runtime().declared(),
        server.log(HostedLogs.USUAL),
        readAtStart(stock));
  }

  private static List<String> readAtStart(Stock stock) {
    Server server = stock.server();
    return stock.texts().entrySet().stream()
        .filter(
            file ->
                file.getKey().equals(JettyBase.startIni(server))
                    || JettyBase.startD(server).contains(file.getKey())
                    || JettyKind.etc(server).contains(file.getKey()))
        .sorted(Map.Entry.comparingByKey())
        .map(file -> Digests.of(file.getValue()))
        .toList();
  }

  @Override
  public boolean isOne(List<String> arguments) {
    boolean starts =
        arguments.stream()
            .anyMatch(argument -> argument.equals(PROGRAM) || argument.endsWith("/" + PROGRAM));
    boolean asJetty =
        arguments.contains("-jar") || property(arguments, "jetty.").findAny().isPresent();
    return starts && asJetty || arguments.contains(FORKED);
  }

  /** What starts one by hand names its folder only when it does not work there. */
  @Override
  public Optional<Path> folder(List<String> arguments) {
    return Optional.of(
        property(arguments, "jetty.base=").findFirst().map(Path::of).orElse(Path.of("")));
  }

  @Override
  public Optional<Path> installation(List<String> arguments) {
    return property(arguments, "jetty.home=")
        .map(Path::of)
        .findFirst()
        .or(
            () ->
                arguments.stream()
                    .filter(argument -> argument.endsWith("/" + PROGRAM))
                    .map(argument -> Path.of(argument).getParent())
                    .findFirst());
  }

  private static Stream<String> property(List<String> arguments, String name) {
    return arguments.stream()
        .map(argument -> argument.startsWith("-D") ? argument.substring("-D".length()) : argument)
        .filter(argument -> argument.startsWith(name))
        .map(argument -> argument.substring(name.length()));
  }
}

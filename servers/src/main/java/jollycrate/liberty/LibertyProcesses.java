package jollycrate.liberty;

import java.net.URI;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.app.Ports;
import jollycrate.file.Digests;
import jollycrate.host.Launch;
import jollycrate.hosting.HostedLogs;
import jollycrate.server.KindProcesses;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** The one process of an Open Liberty. */
final class LibertyProcesses implements KindProcesses {
  private static final String TOOLS = "bin/tools";
  private static final String PROGRAM = "ws-server.jar";

  /** The first release of Java for which other options are needed. */
  private static final int OTHER_OPTIONS = 24;

  @Override
  public Launch launch(Stock stock) {
    Server server = stock.server();
    Path home = server.installation();
    Path base = server.folder();
    LibertyBase files = LibertyBase.of(stock);
    List<String> command = server.javaCommand();
    command.add("-javaagent:" + home.resolve(TOOLS).resolve("ws-javaagent.jar"));
    if (files.isOurs()) {
      command.add("-Djava.io.tmpdir=" + base.resolve("tmp"));
    }
    command.add("-Djava.awt.headless=true");
    command.add("-Dfile.encoding=UTF-8");
    command.add("-Djolly.token=" + Launch.TOKEN);
    command.addAll(options(stock));
    if (!files.isOurs()) {
      command.addAll(files.jvmOptions());
    }
    command.add("-jar");
    command.add(home.resolve(TOOLS).resolve(PROGRAM).toString());
    command.addAll(files.isOurs() ? toldToOurs(server) : List.of(base.getFileName().toString()));
    Map<String, String> environment = new HashMap<>(server.runtime().environment());
    environment.putAll(files.isOurs() ? placesOfOurs(base) : placesOfTheirs(files, base));
    environment.put("WLP_LOGGING_CONSOLE_FORMAT", "simple");
    environment.put("WLP_LOGGING_CONSOLE_LOGLEVEL", "info");
    environment.put("WLP_LOGGING_CONSOLE_SOURCE", "message");
    return new Launch(
        command,
        base,
        stock.owned(),
        environment,
        server.runtime().declared(),
        server.log(HostedLogs.USUAL),
        Stream.concat(files.readAtStart().stream(), Stream.of(optionsFile(stock)))
            .map(file -> Digests.of(stock.texts().getOrDefault(file, new byte[0])))
            .toList());
  }

  private static List<String> toldToOurs(Server server) {
    return List.of(
        LibertyFiles.NAME,
        "--",
        "--jolly.http.address=" + address(server),
        "--jolly.http.port=" + server.ports().http(),
        "--jolly.public.port=" + publicPort(server.ports()),
        "--jolly.admin=" + server.ports().admin().isPresent(),
        "--jolly.admin.port=" + server.ports().admin().orElse(-1));
  }

  private static Map<String, String> placesOfOurs(Path base) {
    return Map.of(
        "WLP_USER_DIR",
        base.toString(),
        "WLP_OUTPUT_DIR",
        base.resolve(LibertyFiles.STATE).toString(),
        "LOG_DIR",
        base.resolve("logs").toString());
  }

  /** As its own script would tell, with what its own files say. */
  private static Map<String, String> placesOfTheirs(LibertyBase files, Path base) {
    Map<String, String> places = new HashMap<>();
    places.put("WLP_USER_DIR", base.resolve("../..").normalize().toString());
    places.putAll(files.environment());
    return places;
  }

  /** Every address is called otherwise there. */
  private static String address(Server server) {
    String address = server.ports().address();
    return address.equals("0.0.0.0") || address.equals("::") ? "*" : address;
  }

  /** The one that people ask for, where a web server stands before it. */
  static int publicPort(Ports ports) {
    int told = ports.url().map(URI::getPort).orElse(-1);
    return told < 0 ? ports.http() : told;
  }

  private static Path optionsFile(Stock stock) {
    List<Path> files = optionsFiles(stock.server());
    return files.get(stock.javaFeature() < OTHER_OPTIONS ? 0 : 1);
  }

  /** Files of the installation that say what Java has to open. */
  static List<Path> optionsFiles(Server server) {
    Path folder = server.installation().resolve("lib/platform/java");
    return List.of(folder.resolve("java9.options"), folder.resolve("java24.options"));
  }

  private static List<String> options(Stock stock) {
    return stock
        .text(optionsFile(stock))
        .orElse("")
        .lines()
        .map(String::strip)
        .filter(line -> !line.isEmpty() && !line.startsWith("#"))
        .toList();
  }

  @Override
  public boolean isOne(List<String> arguments) {
    return arguments.stream().anyMatch(argument -> argument.endsWith("/" + PROGRAM));
  }

  /** Its arguments do not tell: one that we started works there. */
  @Override
  public Optional<Path> folder(List<String> arguments) {
    return Optional.of(Path.of(""));
  }

  @Override
  public Optional<Path> installation(List<String> arguments) {
    return arguments.stream()
        .filter(argument -> argument.endsWith("/" + TOOLS + "/" + PROGRAM))
        .map(argument -> Path.of(argument).getParent().getParent().getParent())
        .findFirst();
  }
}

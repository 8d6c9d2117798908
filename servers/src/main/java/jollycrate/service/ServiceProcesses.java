package jollycrate.service;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.host.Identity;
import jollycrate.host.Launch;
import jollycrate.server.KindProcesses;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** The keeper's process, and those that it noted. */
final class ServiceProcesses implements KindProcesses {
  private static final String KEEPER_MAIN = "jollycrate.keeper.Keeper";
  private static final Duration KEEPER_NEEDS = Duration.ofSeconds(15);
  private static final Pattern NOTE = Pattern.compile("(\\d+) (\\d+) (\\S+)\\s*");

  @Override
  public Launch launch(Stock stock) {
    Server server = stock.server();
    ServiceFiles files = new ServiceFiles(server);
    List<String> command =
        List.of(
            server.runtime().javaProgram().toString(),
            "-Xmx24m",
            "-Xss256k",
            "-XX:+UseSerialGC",
            "-XX:TieredStopAtLevel=1",
            "-Djolly.token=" + Launch.TOKEN,
            "-cp",
            files.keeper().toString(),
            KEEPER_MAIN,
            server.folder().toString());
    return new Launch(
        command,
        server.folder(),
        server.folder(),
        server.runtime().environment(),
        server.runtime().declared(),
        files.logs().resolve("keeper.log"),
        List.of());
  }

  @Override
  public boolean isOne(List<String> arguments) {
    return arguments.contains(KEEPER_MAIN);
  }

  @Override
  public Optional<Path> folder(List<String> arguments) {
    int main = arguments.indexOf(KEEPER_MAIN);
    return main + 1 < arguments.size()
        ? Optional.of(Path.of(arguments.get(main + 1)).normalize())
        : Optional.empty();
  }

  @Override
  public List<Identity> noted(Server server, Map<Path, byte[]> texts) {
    List<Identity> noted = new ArrayList<>();
    for (int port : server.ports().all()) {
      byte[] text = texts.getOrDefault(new ServiceFiles(server).note(port), new byte[0]);
      Matcher note = NOTE.matcher(new String(text, StandardCharsets.UTF_8));
      if (note.matches()) {
        noted.add(
            new Identity(
                note.group(3), "", Long.parseLong(note.group(1)), Long.parseLong(note.group(2))));
      }
    }
    return noted;
  }

  @Override
  public Duration endsWithin(Stock stock) {
    ServiceFiles files = new ServiceFiles(stock.server());
    long longest =
        stock.server().ports().all().stream()
            .flatMap(port -> stock.text(files.run(port)).stream())
            .map(text -> RunText.read(text).getProperty("stop.within", ""))
            .filter(seconds -> seconds.matches("\\d{1,6}"))
            .mapToLong(Long::parseLong)
            .max()
            .orElse(0);
    return Duration.ofSeconds(longest).plus(KEEPER_NEEDS);
  }
}

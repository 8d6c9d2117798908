package jollycrate.service;

import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import jollycrate.host.HostFiles;
import jollycrate.server.Cause;
import jollycrate.server.KindLogs;
import jollycrate.server.LogPlace;
import jollycrate.server.Placement;
import jollycrate.server.Server;
import jollycrate.server.Stock;
import jollycrate.watch.LogTail;

/** The logs of programs, apart from the keeper's events. */
final class ServiceLogs implements KindLogs {
  @Override
  public List<Path> all(Stock stock) {
    ServiceFiles files = new ServiceFiles(stock.server());
    return stock.children().getOrDefault(files.logs(), List.of()).stream()
        .filter(file -> !file.getFileName().toString().equals("keeper.log"))
        .filter(file -> file.toString().endsWith(".log"))
        .sorted(Comparator.comparing(file -> file.equals(LogTail.end(file))))
        .toList();
  }

  @Override
  public Optional<LogPlace> output(
      HostFiles files, Server server, Placement placement, String log) {
    String name = String.valueOf(placement.route().direct().getPort());
    return KeeperEvents.of(name, log).begun().map(begun -> place(files, server, begun));
  }

  /** Parts that are too old are gone; then the oldest one that is left. */
  private static LogPlace place(HostFiles host, Server server, KeeperEvents.Begun begun) {
    ServiceFiles files = new ServiceFiles(server);
    Path end = files.log(begun.log());
    Path first =
        host.list(files.logs()).stream()
            .filter(file -> LogTail.end(file).equals(end))
            .filter(file -> LogTail.number(file) >= begun.number())
            .min(Comparator.comparingInt(LogTail::number))
            .orElse(end);
    boolean whole = !first.equals(end) && LogTail.number(first) > begun.number();
    return new LogPlace(first, whole ? 0 : begun.offset());
  }

  @Override
  public Optional<Cause> down(Server server, Placement placement, String log) {
    return ProgramSigns.down(server.name(), placement, log);
  }

  @Override
  public List<Cause> remarks(Server server, Placement placement, String log) {
    String name = String.valueOf(placement.route().direct().getPort());
    String lost = KeeperEvents.of(name, log).unlogged();
    return lost.isEmpty()
        ? List.of()
        : List.of(
            Cause.of(
                "its log cannot be written, and lines were lost: " + lost,
                "Make room for '" + new ServiceFiles(server).logs() + "'"));
  }

  @Override
  public Optional<Cause> explain(List<String> packages, String log) {
    return new ProgramFailure(packages).in(log);
  }
}

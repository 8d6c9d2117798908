package jollycrate.stock;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.host.Fact;
import jollycrate.host.Host;
import jollycrate.host.Program;
import jollycrate.server.ServerKind;

/** Processes on a host that are servers of a kind. */
public record Serving(Host host, ServerKind kind) {
  /**
   * Those that serve a folder, whoever started them.
   *
   * @param folder as it really is, through links
   */
  public Fact<List<Program>> of(Path folder) {
    Fact<List<Program>> ofKind = host.processes().programs(kind.processes()::isOne);
    if (ofKind.unread().isPresent()) {
      return ofKind;
    }
    List<Program> serving = new ArrayList<>();
    for (Program program : ofKind.orElse(List.of())) {
      Optional<Path> told = kind.processes().folder(program.arguments());
      if (told.isEmpty()) {
        continue;
      }
      Fact<Path> its = absolute(program, told.get());
      if (its.unread().isPresent() && host.processes().mayRun(program.identity())) {
        return Fact.unknown(its.unread().get());
      }
      if (its.map(at -> host.files().real(at).equals(folder)).orElse(false)) {
        serving.add(program);
      }
    }
    return Fact.known(List.copyOf(serving));
  }

  private Fact<Path> absolute(Program program, Path told) {
    return told.isAbsolute()
        ? Fact.known(told)
        : host.processes().workingFolder(program.identity()).map(at -> at.resolve(told));
  }
}

package jollycrate.site;

import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import jollycrate.app.NotDescribedException;
import jollycrate.app.Setting;
import jollycrate.host.Host;
import jollycrate.host.Program;

/** Where a server that people have stands, by what they name. */
record AdoptedPlaces(Host host, Setting setting, Kinds kinds) {
  /** Where people name an installation, the only instance in it is meant. */
  Path folder(Adoption.Wanted wanted) {
    Path told = there(wanted, wanted.folder());
    List<Path> instances =
        wanted.installation().isPresent()
            ? List.of(told)
            : kinds
                .recognised(host.files(), told)
                .map(found -> found.kind().instances(host.files(), told))
                .orElse(List.of(told));
    if (instances.size() != 1) {
      throw cannot(
          wanted.name(),
          instances.isEmpty()
              ? "no instance stands in '" + told + "'"
              : "several instances stand in '" + told + "'",
          instances.isEmpty()
              ? "Make one: jolly server new " + wanted.name() + " --installation " + told
              : "Name one: "
                  + instances.stream().map(Path::toString).collect(Collectors.joining(", ")));
    }
    return instances.get(0);
  }

  /** What an instance runs from, as somebody tells, or its process, or what it stands in. */
  Path installation(Adoption.Wanted wanted, Path folder, Optional<Program> process) {
    return wanted
        .installation()
        .map(told -> there(wanted, told))
        .or(() -> process.flatMap(kinds::installationOf))
        .orElseGet(() -> around(folder));
  }

  /** The installation that an instance stands in; itself where it stands in none. */
  private Path around(Path folder) {
    for (Path at = folder; at != null; at = at.getParent()) {
      if (kinds.recognised(host.files(), at).isPresent()) {
        return at;
      }
    }
    return folder;
  }

  /** The kind of an installation. */
  Kinds.Recognised recognised(String name, Path folder, Path installation) {
    try {
      return kinds.recognise(host.files(), installation);
    } catch (NotDescribedException e) {
      throw cannot(
          name,
          "in '" + installation + "': " + kinds.whyNot(host.files(), installation),
          kinds.unsupported(host.files(), installation).isPresent()
              ? ""
              : "If it is an instance of a server that is installed elsewhere, say where:"
                  + " --installation PATH");
    }
  }

  /** A path of what is wanted, on its machine. */
  private Path there(Adoption.Wanted wanted, Path told) {
    if (!host.here() && !told.isAbsolute()) {
      throw cannot(
          wanted.name(),
          "'" + told + "' is no whole path on '" + host.name() + "'",
          "Write it like /srv/" + wanted.name());
    }
    return setting.folder().resolve(told).normalize();
  }

  /** Why one cannot be taken over. */
  static NotDescribedException cannot(String name, String reason, String fix) {
    String tail = fix.isEmpty() ? "" : ". " + fix;
    return new NotDescribedException("Cannot adopt server '" + name + "': " + reason + tail);
  }
}

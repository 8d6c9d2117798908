package jollycrate.site;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import jollycrate.app.Jvm;
import jollycrate.app.ServerEntry;
import jollycrate.app.Setting;
import jollycrate.host.Host;
import jollycrate.host.HostException;
import jollycrate.secret.Reference;
import jollycrate.secret.SecretException;
import jollycrate.secret.Secrets;
import jollycrate.server.Server;

/**
 * Servers as their entries describe them.
 *
 * @param secrets what references in {@code servers.toml} stand for
 */
public record Instances(Setting setting, Secrets secrets) {
  /** The server of an entry on a machine, in a folder that may not be its final one. */
  Server server(Host host, ServerEntry entry, Path installation, Path folder) {
    Map<String, String> environment = new LinkedHashMap<>(host.environment());
    host.processes()
        .accountIn(folder)
        .ifPresent(account -> environment.putAll(account.variables()));
    List<String> unresolved = new ArrayList<>();
    addVariables(entry, environment, unresolved);
    return new Server(
        entry.name(),
        installation,
        folder,
        entry.ports(),
        new Server.Runtime(
            java(entry.jvm(), host),
            entry.jvm(),
            environment,
            entry.variables().declared(),
            List.copyOf(unresolved),
            entry
                .jvm()
                .archive()
                .flatMap(archive -> new JavaArchive(archive).supply(host, setting))),
        entry.keeping(),
        entry.front().map(front -> front.at(host.files().real(front.config()))),
        entry.steering(),
        entry.boot());
  }

  /** Where the Java of a server may be that describes none, the one that counts in front. */
  static List<Path> javas(Jvm jvm, Host host) {
    return host.here() || jvm.home().isPresent() || jvm.archive().isPresent()
        ? List.of()
        : Stream.of(host.environment().getOrDefault("PATH", "").split(":"))
            .filter(folder -> folder.startsWith("/"))
            .map(folder -> Path.of(folder, "java"))
            .toList();
  }

  /**
   * Home of the Java that a server runs on: the one described, else the one that the tool runs on,
   * or a log-in to another machine.
   */
  Path java(Jvm jvm, Host host) {
    return jvm.archive()
        .map(archive -> new JavaArchive(archive).home(host, setting))
        .or(jvm::home)
        .orElseGet(() -> host.here() ? setting.java() : found(jvm, host));
  }

  /** Brings to its machine what a server needs and is not there. */
  void bring(Server server, Host host) {
    server
        .runtime()
        .supply()
        .ifPresent(supply -> new JavaArchive(supply.archive()).bring(host, setting));
  }

  private static Path found(Jvm jvm, Host host) {
    return javas(jvm, host).stream()
        .filter(java -> host.files().facts(java).exists())
        .map(host.files()::real)
        .filter(java -> java.endsWith("bin/java"))
        .map(java -> java.getParent().getParent())
        .findFirst()
        .orElseThrow(
            () ->
                new HostException(
                    "Cannot find a Java on '"
                        + host.name()
                        + "'. Install one there and name its home as 'java' in servers.toml, or let one"
                        + " be brought there: java = { archive = \"jdk-21.tar.gz\" }"));
  }

  private void addVariables(
      ServerEntry entry, Map<String, String> environment, List<String> unresolved) {
    for (String name : entry.variables().passed()) {
      Optional.ofNullable(System.getenv(name)).ifPresent(value -> environment.put(name, value));
    }
    entry
        .variables()
        .given()
        .forEach(
            (name, written) -> {
              try {
                environment.put(
                    name,
                    Reference.of(written, entry.variables().folder())
                        .map(secrets::resolve)
                        .orElse(written));
              } catch (SecretException e) {
                unresolved.add(name + ": " + e.getMessage());
              }
            });
  }
}

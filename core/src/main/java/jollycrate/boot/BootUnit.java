package jollycrate.boot;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import jollycrate.app.Boot;
import jollycrate.file.Digests;
import jollycrate.host.Access;
import jollycrate.host.Account;
import jollycrate.host.Content;
import jollycrate.host.Launch;
import jollycrate.server.Part;
import jollycrate.server.PickUp;
import jollycrate.server.Piece;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/**
 * The unit by which systemd starts a server after the machine was started (systemd.service(5),
 * systemd.exec(5)). It stands ready for the next start of the machine; nothing is told to a running
 * systemd.
 */
public final class BootUnit {
  private static final String TOKEN = "boot-";
  private static final int STOP_SECONDS = 90;
  private static final List<String> ANYWHERE =
      List.of(
          "NoNewPrivileges=yes",
          "LockPersonality=yes",
          "RestrictRealtime=yes",
          "RestrictSUIDSGID=yes",
          "RestrictNamespaces=yes",
          "RestrictAddressFamilies=AF_UNIX AF_INET AF_INET6",
          "SystemCallArchitectures=native",
          "SystemCallFilter=@system-service",
          "SystemCallErrorNumber=EPERM",
          "UMask=0027");
  private static final List<String> BY_THE_MACHINE =
      List.of(
          "CapabilityBoundingSet=",
          "AmbientCapabilities=",
          "PrivateDevices=yes",
          "PrivateTmp=yes",
          "ProtectClock=yes",
          "ProtectControlGroups=yes",
          "ProtectHome=read-only",
          "ProtectHostname=yes",
          "ProtectKernelLogs=yes",
          "ProtectKernelModules=yes",
          "ProtectKernelTunables=yes",
          "ProtectSystem=strict",
          "RemoveIPC=yes");

  private final Server server;
  private final Boot boot;
  private final Launch launch;
  private final Access access;

  private BootUnit(Stock stock, Launch launch) {
    this.server = stock.server();
    this.boot = server.boot().orElseThrow();
    this.launch = launch;
    this.access = stock.access();
  }

  /** The pieces of a server that is started with the machine; none for others. */
  public static List<Piece> pieces(Stock stock, Launch launch) {
    return stock.server().boot().isPresent() ? new BootUnit(stock, launch).pieces() : List.of();
  }

  /** Stands among the arguments of a server that systemd started. */
  public static String token(Server server) {
    return TOKEN + Digests.brief(Content.of(server.folder().toString()).digest());
  }

  /** The unit's file. */
  public static Path file(Server server) {
    return units(server).resolve(name(server));
  }

  private static String name(Server server) {
    return "jolly-" + server.name() + ".service";
  }

  private static Path units(Server server) {
    return server.boot().filter(Boot.SYSTEM::equals).isPresent()
        ? Path.of("/etc/systemd/system")
        : Path.of(server.runtime().environment().getOrDefault("HOME", "/"), ".config/systemd/user");
  }

  private List<Piece> pieces() {
    List<Piece> pieces = new ArrayList<>();
    Path target = units(server).resolve(target() + ".d");
    for (Path folder = target;
        folder.getNameCount() > 2 || folder.startsWith("/etc");
        folder = folder.getParent()) {
      if (folder.equals(Path.of("/etc")) || folder.equals(home())) {
        break;
      }
      pieces.add(0, new Piece.Folder(folder, keeping("rwxr-xr-x")));
    }
    pieces.add(file(file(server), text()));
    pieces.add(
        file(
            target.resolve(name(server).replace(".service", ".conf")),
            "[Unit]\nWants=" + name(server) + "\n"));
    return pieces;
  }

  private Path home() {
    return Path.of(server.runtime().environment().getOrDefault("HOME", "/"));
  }

  private Piece file(Path path, String text) {
    return new Piece.WholeFile(
        path, Content.of(text), keeping("rw-r--r--"), Part.SUPPORT, PickUp.LIVE);
  }

  /** Whoever may write a unit of the machine is root: it can say that it runs as root. */
  private Access keeping(String mode) {
    return boot == Boot.SYSTEM ? new Access(mode, Account.ROOT, Account.ROOT) : access.with(mode);
  }

  private String target() {
    return boot == Boot.SYSTEM ? "multi-user.target" : "default.target";
  }

  private String text() {
    boolean system = boot == Boot.SYSTEM;
    List<String> lines = new ArrayList<>();
    lines.add("[Unit]");
    lines.add("Description=" + server.name() + ", delivered to by Jolly Crate");
    if (system) {
      lines.add("Wants=network-online.target");
      lines.add("After=network-online.target");
    }
    lines.add("");
    lines.add("[Service]");
    lines.add("Type=exec");
    if (system) {
      lines.add("User=" + access.owner());
      lines.add("Group=" + access.group());
    }
    lines.add("WorkingDirectory=" + escaped(launch.workingFolder().toString()));
    lines.add("Environment=" + variables());
    lines.add(
        "ExecStart="
            + launch.commandWith(token(server)).stream()
                .map(BootUnit::quoted)
                .collect(Collectors.joining(" ")));
    lines.add("StandardOutput=append:" + escaped(launch.output().toString()));
    lines.add("StandardError=inherit");
    lines.add("Restart=on-failure");
    lines.add("RestartSec=2");
    lines.add("SuccessExitStatus=143");
    lines.add("KillMode=mixed");
    lines.add("TimeoutStopSec=" + STOP_SECONDS);
    lines.addAll(ANYWHERE);
    if (system) {
      lines.addAll(BY_THE_MACHINE);
      lines.add("ReadWritePaths=" + inQuotes(escaped(server.folder().toString())));
    }
    lines.add("");
    lines.add("[Install]");
    lines.add("WantedBy=" + target());
    return String.join("\n", lines) + "\n";
  }

  /** Only what is the same in every shell, or the server's own; the rest is systemd's. */
  private String variables() {
    Map<String, String> fixed = new TreeMap<>(launch.environment());
    Set<String> inherited = new HashSet<>(server.runtime().environment().keySet());
    inherited.removeAll(List.of("LANG", "LC_ALL"));
    fixed.keySet().removeAll(inherited);
    return fixed.entrySet().stream()
        .map(variable -> quoted(variable.getKey() + "=" + variable.getValue()))
        .collect(Collectors.joining(" "));
  }

  private static String escaped(String text) {
    return text.replace("%", "%%");
  }

  /** A word of a command line, in which {@code $} stands for a variable (systemd.service(5)). */
  private static String quoted(String text) {
    return inQuotes(escaped(text).replace("$", "$$"));
  }

  private static String inQuotes(String text) {
    String plain = text.replace("\\", "\\\\").replace("\"", "\\\"");
    return plain.matches("[\\w./:=,@%+-]+") ? plain : '"' + plain + '"';
  }
}

package jollycrate.tomcat;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import jollycrate.host.HostFiles;
import jollycrate.server.SelfDescription;
import jollycrate.server.SelfDescription.Doubt;
import jollycrate.server.SelfDescription.Told;
import jollycrate.server.SelfDescription.Way;
import jollycrate.server.Server;
import jollycrate.server.Stock;

/** What the files of a Tomcat that somebody set up say of it. */
final class TomcatSelf {
  private static final String START = "bin/startup.sh";
  private static final String OPTIONS = "bin/setenv.sh";

  private final HostFiles files;
  private final Server server;
  private final ServerXml configuration;
  private final List<Told> told = new ArrayList<>();
  private final List<Doubt> doubts = new ArrayList<>();

  TomcatSelf(HostFiles files, Stock stock) {
    this.files = files;
    this.server = stock.server();
    this.configuration = ServerXml.of(stock);
  }

  SelfDescription description() {
    Optional<ServerXml.Connector> http = connectors();
    configuration.main().ifPresent(this::listener);
    configuration.stopPort().ifPresent(this::stopPort);
    configuration.openAdministration().forEach(this::openAdministration);
    doubts.addAll(new Administration(files, server).doubts(configuration));
    Optional<Path> options = own(OPTIONS);
    options.ifPresent(file -> told.add(new Told("options", "of its own", server.shown(file))));
    Optional<Path> start = own(START).or(() -> installed(START));
    return new SelfDescription(
        http.map(ServerXml.Connector::port).orElse(OptionalInt.empty()),
        http.map(ServerXml.Connector::address).orElse(""),
        start
            .map(file -> new Way("logs/catalina.out", List.of(server.shown(file))))
            .orElseGet(() -> new Way(TomcatLogs.USUAL.toString(), List.of())),
        List.copyOf(told),
        List.copyOf(doubts));
  }

  private Optional<Path> own(String name) {
    return Optional.of(server.folder().resolve(name)).filter(file -> files.facts(file).isFile());
  }

  private Optional<Path> installed(String name) {
    return Optional.of(server.installation().resolve(name))
        .filter(file -> files.facts(file).isFile());
  }

  private Optional<ServerXml.Connector> connectors() {
    for (ServerXml.Connector connector : configuration.connectors()) {
      String port =
          connector.port().isPresent()
              ? String.valueOf(connector.port().getAsInt())
              : "a port that is not known here";
      String bound = connector.address().isEmpty() ? "every address" : connector.address();
      told.add(
          new Told(connector.tls() ? "HTTPS" : "HTTP", port + " on " + bound, connector.where()));
    }
    return configuration.connectors().stream()
        .filter(connector -> !connector.tls() && connector.port().isPresent())
        .findFirst();
  }

  private void listener(Listener listener) {
    String looked =
        listener.live()
            ? "looked at every " + listener.interval().toSeconds() + " s"
            : listener.atStart() ? "looked at when it starts only" : "never looked at";
    told.add(new Told("serves", server.shown(listener.applications()) + ", " + looked, ""));
    told.add(new Told("descriptors", server.shown(listener.descriptors()), ""));
    if (!listener.live() && !listener.atStart()) {
      doubts.add(
          new Doubt(
              "host",
              "it deploys neither when the server starts nor later, so nothing can be delivered",
              "conf/server.xml",
              "Set deployOnStartup=\"true\" on the Host"));
    } else if (!listener.live()) {
      doubts.add(
          new Doubt(
              "host",
              "with autoDeploy=\"false\" each delivery restarts the server, and with it what else"
                  + " runs there",
              "conf/server.xml",
              ""));
    }
  }

  private void openAdministration(ServerXml.Connector connector) {
    doubts.add(
        new Doubt(
            "port " + connector.port().getAsInt(),
            "the admin listener is open to whoever reaches this machine",
            connector.where(),
            "'jolly server harden " + server.name() + "' keeps it to loopback"));
  }

  private void stopPort(ServerXml.StopPort port) {
    boolean usual = port.isUsual();
    told.add(
        new Told(
            "stop port",
            port.port() + (usual ? ", with the word that everybody knows" : ", with its own word"),
            port.where()));
    if (usual) {
      doubts.add(
          new Doubt(
              "port " + port.port(),
              "whoever may connect to this machine's loopback stops the server by the usual word",
              port.where(),
              "'jolly server harden " + server.name() + "' gives it a word of its own"));
    }
  }
}

package jollycrate.service;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import jollycrate.app.Application;
import jollycrate.app.DataSource;
import jollycrate.app.Program;
import jollycrate.app.User;
import jollycrate.app.Way;
import jollycrate.artifact.Artifact;
import jollycrate.file.Digests;
import jollycrate.hosting.Refusals;
import jollycrate.secret.Reference;
import jollycrate.server.Order;
import jollycrate.server.Server;
import jollycrate.server.Unfolded;

/** How the artifact of an order runs as a program: the file that tells the keeper. */
final class ProgramRun {
  private static final String ALONE = "jollycrate.standalone.Standalone";

  private final Server server;
  private final Order order;
  private final Application application;
  private final Artifact artifact;
  private final Program program;
  private final ServiceFiles files;
  private final References values;
  private final Refusals refusals;

  ProgramRun(Server server, Order order, Refusals refusals) {
    this.server = server;
    this.order = order;
    this.application = order.application();
    this.artifact = order.artifact();
    this.program = application.program();
    this.files = new ServiceFiles(server);
    this.values = new References(order.values());
    this.refusals = refusals;
  }

  /**
   * The file by which the program runs.
   *
   * @param secret whether only its owner may read it
   * @param hidden values that must not be shown, in it and in the settings
   */
  record Made(
      String text, boolean secret, List<String> hidden, Optional<ProgramSettings.Made> settings) {}

  /**
   * Whether our launcher serves the artifact, and takes its port by an argument; it does not where
   * it only goes on to a main class of the application's own.
   */
  boolean isAlone() {
    return artifact.start().mainClass().filter(ALONE::equals).isPresent()
        && artifact.start().startClass().isEmpty();
  }

  /** Where the program works. */
  Path folder() {
    return server.folder().resolve(program.folder()).normalize();
  }

  /** On a port. */
  Made on(int port) {
    Handing handing = handing(port);
    Optional<ProgramSettings.Made> settings =
        program
            .settings()
            .map(
                file ->
                    new ProgramSettings(application, file, files, values, refusals).made(handing));
    String settingsPath = settings.map(ProgramSettings.Made::file).map(Path::toString).orElse("");
    UnaryOperator<String> filled =
        text ->
            text.replace(Program.SETTINGS, settingsPath)
                .replace(Program.PORT, String.valueOf(port))
                .replace(Program.ADDRESS, server.ports().address());
    RunText run = new RunText();
    String content = order.unfolded().map(Unfolded::stamp).orElse(artifact.digest());
    run.put("release", (order.version() + " " + content).strip());
    run.command(command(handing, filled));
    run.put("folder", folder().toString());
    program
        .variables()
        .forEach(
            (name, written) -> {
              Optional<String> value = values.referred(written);
              run.variable(name, value.orElse(filled.apply(written)), value.isPresent());
            });
    handing.variables.forEach((name, value) -> run.variable(name, value, false));
    handing.secretVariables.forEach((name, value) -> run.variable(name, value, true));
    settings
        .filter(file -> !program.holds(Program.SETTINGS))
        .ifPresent(
            file -> {
              run.put("copy.from", file.file().toString());
              run.put("copy.to", inPlace().toString());
            });
    List<String> secrets = settings.map(ProgramSettings.Made::secrets).orElse(List.of());
    for (int i = 0; i < secrets.size(); i++) {
      run.hidden(i + 1, secrets.get(i));
    }
    run.put("log", application.name() + (port == server.ports().http() ? "" : "-" + port));
    run.put("log.size", String.valueOf(server.keeping().log().size()));
    run.put("log.keep", String.valueOf(server.keeping().log().keep()));
    run.put("restart", program.restarts() ? "on-crash" : "never");
    run.put("stop.within", String.valueOf(program.stopsWithin().toSeconds()));
    program.ready().ifPresent(text -> run.put("ready", text));
    List<String> hidden = new ArrayList<>(secrets);
    hidden.addAll(run.secrets());
    return new Made(run.text(), run.isSecret(), List.copyOf(hidden), settings);
  }

  private List<String> command(Handing handing, UnaryOperator<String> filled) {
    List<String> command = server.javaCommand();
    command.add("-XX:+ExitOnOutOfMemoryError");
    command.add("-Dfile.encoding=UTF-8");
    program.java().stream().map(filled).forEach(command::add);
    command.addAll(handing.properties);
    String place = order.unfolded().map(Unfolded::folder).orElse(jar()).toString();
    Optional<String> main =
        program.main().or(() -> order.unfolded().flatMap(folder -> artifact.start().mainClass()));
    if (main.isPresent()) {
      command.addAll(List.of("-cp", place, main.get()));
    } else {
      command.addAll(List.of("-jar", place));
    }
    command.addAll(handing.arguments);
    program.arguments().stream().map(filled).forEach(command::add);
    return command;
  }

  private Handing handing(int port) {
    Handing handing = new Handing();
    Optional<Way> told =
        program
            .port()
            .or(() -> isAlone() ? Optional.of(Way.argument("--port={value}")) : Optional.empty());
    if (told.isEmpty() && !program.knowsPort() && !program.holds(Program.PORT)) {
      refusals.refuse(
          application.name(),
          "nobody says how the program is told its HTTP port",
          "Add it to [program] in jolly.toml, like port = { argument = \"--port={value}\" }, or port = \"own\" if"
              + " it knows it by itself; {port} in 'arguments' tells it too");
    }
    handing.give(told, port);
    handing.give(
        program
            .address()
            .or(() -> isAlone() ? Optional.of(Way.argument("--bind={value}")) : Optional.empty()),
        server.ports().address(),
        false);
    if (isAlone()) {
      handing.arguments.add("--path=" + application.context().path().orElse("/"));
      forLauncher(handing);
    }
    for (DataSource source : application.dataSources()) {
      Program.Handed ways = program.dataSources().get(source.jndiName());
      if (ways != null) {
        String password = order.databasePasswords().getOrDefault(source.jndiName(), "");
        handing.give(ways.url(), source.url(), false);
        handing.give(ways.user(), source.user(), false);
        handing.give(ways.password(), password, true);
      }
    }
    return handing;
  }

  /** The launcher inside resolves by itself what was packed; it needs the same variables. */
  private void forLauncher(Handing handing) {
    for (DataSource source : application.dataSources()) {
      launcherReads(handing, source.password(), order.databasePasswords().get(source.jndiName()));
    }
    for (User user : application.access().users()) {
      launcherReads(handing, user.password(), order.userPasswords().get(user.name()));
    }
  }

  private void launcherReads(Handing handing, Optional<Reference> reference, String value) {
    if (reference.isEmpty() || value == null) {
      return;
    }
    Optional<String> variable = reference.get().variable();
    if (variable.isPresent()) {
      handing.secretVariables.put(variable.get(), value);
    } else if (!Path.of(reference.get().text().substring("file:".length())).isAbsolute()) {
      refusals.refuse(
          reference.get().text(),
          "the program reads this file by itself when it starts, in the service's folder",
          "Refer to a variable, like \"env:NAME\", or give the whole path");
    }
  }

  /** Where the artifact stands. */
  Path jar() {
    String name = artifact.file().getFileName().toString();
    return files
        .releases()
        .resolve(
            application.name()
                + order.versionInNames()
                + "-"
                + Digests.brief(artifact.digest())
                + name.substring(Math.max(0, name.lastIndexOf('.'))));
  }

  /** Where the program looks for its settings when nothing points to them. */
  Path inPlace() {
    return folder().resolve(program.settings().orElseThrow().name()).normalize();
  }
}

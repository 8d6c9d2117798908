package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.Optional;
import jollycrate.app.Jvm;
import jollycrate.app.ServerEntry;
import jollycrate.app.ServersFile;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.Screen;
import jollycrate.site.NewServer;

/** {@code jolly server new}. */
public final class ServerNewCommand implements Command {
  private static final Option HTTP =
      Option.number("--http", "PORT", "HTTP port; else the first free from 8080");
  private static final Option ADMIN =
      Option.number(
          "--admin", "PORT", "port of the admin listener, on loopback only; else the next free");
  private static final Option ADDRESS =
      Option.of(
          "--address",
          "IP",
          "address that HTTP is bound to; else "
              + ServersFile.LOOPBACK
              + ", or every one of another machine");
  private static final Option HOST =
      Option.of(
          "--host", "NAME", "another machine, as servers.toml describes it; PATHs are there then");
  private static final Option MEMORY =
      Option.of("--memory", "SIZE", "maximum heap, like 512m; else " + Jvm.MEMORY);
  private static final Option JAVA =
      Option.of(
          "--java",
          "HOME",
          "home of the Java it runs on; else the one jolly runs on, or a log-in to another machine"
              + " does. For one that has none, an archive of it (.tar.gz)");
  private static final Option FOLDER =
      Option.of("--folder", "PATH", "its own folder; else servers/NAME beside servers.toml");
  private static final Option INSTALLATION =
      Option.of(
          "--installation",
          "PATH",
          "server that it runs, unpacked or as .zip or .tar.gz; else the Tomcat that comes along");
  private static final Option SERVLET_API =
      Option.of(
          "--servlet-api",
          "API",
          "of the Tomcat that comes along: 'jakarta' (10.1), which it is if not told, or 'javax' (9.0)");
  private static final Option KIND =
      Option.of(
          "--kind",
          "KIND",
          "kind that needs no installation: 'service', in which one executable JAR or WAR runs by"
              + " itself");

  private final Session session;

  /** In a session. */
  public ServerNewCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server new",
            "Make a practice server or a service in a folder of its own.",
            "It is described in servers.toml from then on, and started by the first delivery.")
        .needs("NAME", "its name from now on")
        .takes(HOST, HTTP, ADMIN, ADDRESS, MEMORY, JAVA, FOLDER, INSTALLATION, SERVLET_API, KIND)
        .example("jolly server new bench", "a practice server on the first free ports")
        .example("jolly server new far --host app1", "the same on another machine")
        .example("jolly server new solo --kind service", "a place for one executable JAR or WAR")
        .example(
            "jolly server new t9 --installation ~/apache-tomcat-9.tar.gz",
            "an instance of your own Tomcat");
  }

  private static boolean javax(Given given) {
    Optional<String> api = given.text(SERVLET_API);
    if (api.isPresent() && (given.has(INSTALLATION) || given.has(KIND))) {
      throw new WrongUsage("--servlet-api goes with the practice server alone");
    }
    return api.map(
            told ->
                switch (told) {
                  case "javax" -> true;
                  case "jakarta" -> false;
                  default ->
                      throw new WrongUsage("'" + told + "' is neither 'jakarta' nor 'javax'");
                })
        .orElse(false);
  }

  @Override
  public int run(Given given) {
    if (given.has(KIND) && given.has(INSTALLATION)) {
      throw new WrongUsage(
          "--kind goes with servers that need no --installation: leave one of them out");
    }
    if (given.has(KIND) && given.has(ADMIN)) {
      throw new WrongUsage("Servers of a --kind have no admin listener: leave out --admin");
    }
    ServerEntry entry =
        session
            .crate(given)
            .servers()
            .make(
                new NewServer(
                    given.operand(0).orElseThrow(),
                    given.text(HOST),
                    given.text(FOLDER).map(Path::of),
                    given.text(INSTALLATION).map(Path::of),
                    javax(given),
                    given.number(HTTP),
                    given.number(ADMIN),
                    given.text(ADDRESS),
                    given.text(MEMORY).orElse(Jvm.MEMORY),
                    given.text(JAVA).map(Path::of),
                    given.text(KIND)));
    if (given.json()) {
      return session.done(entry);
    }
    Screen screen = session.screen();
    String what = " " + entry.kind().orElse("server") + " ";
    screen.line(screen.style().good("Made") + what + entry.name() + " in " + entry.place());
    String admin = entry.ports().admin().map(port -> ", admin port " + port).orElse("");
    screen.line("HTTP port " + entry.ports().http() + admin + "; described in servers.toml");
    entry.installation().ifPresent(at -> screen.line("It runs the server in " + at));
    return ExitCode.DONE.code();
  }
}

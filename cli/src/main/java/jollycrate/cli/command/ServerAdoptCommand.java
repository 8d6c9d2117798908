package jollycrate.cli.command;

import java.nio.file.Path;
import jollycrate.app.Unit;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.AdoptionView;
import jollycrate.cli.output.ExitCode;
import jollycrate.site.Adoption;

/** {@code jolly server adopt}. */
public final class ServerAdoptCommand implements Command {
  private static final Option NAME = Option.of("--name", "NAME", "its name from now on");
  private static final Option HOST =
      Option.of(
          "--host",
          "NAME",
          "machine where it is, as servers.toml describes it; PATHs are there then");
  private static final Option INSTALLATION =
      Option.of(
          "--installation",
          "PATH",
          "where the server is installed; else what its process runs from, or what the folder"
              + " stands in");
  private static final Option HTTP =
      Option.number("--http", "PORT", "HTTP port; else as its own configuration tells");
  private static final Option UNIT =
      Option.of("--unit", "NAME", "unit of systemd that it runs by; else as its process tells");
  private static final Option USER_UNIT =
      Option.of("--user-unit", "NAME", "the same of this user's own systemd");
  private static final Option JAVA =
      Option.of("--java", "HOME", "home of its Java; else that of its process");

  private final Session session;

  /** In a session. */
  public ServerAdoptCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server adopt",
            "Describe a server that you have, as it stands.",
            "Its files are read and stay as they are; only servers.toml gets an entry.")
        .needs("FOLDER", "the server's folder, or that of the installation around it")
        .takes(NAME, HOST, INSTALLATION, HTTP, UNIT, USER_UNIT, JAVA)
        .example("jolly server adopt /srv/tomcat --name shop", "one folder that is all of it")
        .example(
            "jolly server adopt /srv/shop --name shop --installation /opt/tomcat",
            "an instance of a server that is installed elsewhere")
        .example("jolly server adopt /srv/tomcat --name shop --host app1", "on another machine");
  }

  @Override
  public int run(Given given) {
    Adoption adoption =
        session
            .crate(given)
            .servers()
            .adopt(
                new Adoption.Wanted(
                    given
                        .text(NAME)
                        .orElseThrow(
                            () -> new WrongUsage("The server needs a name: add --name NAME")),
                    given.text(HOST),
                    Path.of(given.operand(0).orElseThrow()),
                    given.text(INSTALLATION).map(Path::of),
                    given.number(HTTP),
                    given
                        .text(UNIT)
                        .map(unit -> new Unit(unit, false))
                        .or(() -> given.text(USER_UNIT).map(unit -> new Unit(unit, true))),
                    given.text(JAVA).map(Path::of)));
    if (given.json()) {
      return session.done(adoption);
    }
    new AdoptionView(session.screen()).show(adoption);
    return ExitCode.DONE.code();
  }
}

package jollycrate.cli.command;

import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.DeliveryView;

/** {@code jolly server harden}. */
public final class ServerHardenCommand implements Command {
  private static final Option MOVE_PAGES =
      Option.of(
          "--move-pages", "its own administration pages go to the admin listener, out of public");

  private final Session session;

  /** In a session. */
  public ServerHardenCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server harden",
            "Close the doors of a server that everybody knows.",
            "Well-known passwords are locked, those in plain text stored as salted hashes, the"
                + " server's own administration pages and its admin listener are for this machine"
                + " only, and the usual stop word goes. A delivery: proven, or taken back.")
        .needs("NAME", "the server, as servers.toml names it")
        .takes(MOVE_PAGES, Option.DRY_RUN, Option.DIFF)
        .example(
            "jolly server harden shop --dry-run", "say what would be done, and show the changes")
        .example("jolly server harden shop", "do it; a server that runs is restarted");
  }

  @Override
  public int run(Given given) {
    boolean dryRun = given.has(Option.DRY_RUN);
    DeliveryView view = new DeliveryView(session.screen(), dryRun || given.has(Option.DIFF));
    return session.end(
        given,
        session
            .crate(given, view)
            .servers()
            .harden(given.operand(0).orElseThrow(), given.has(MOVE_PAGES), dryRun));
  }
}

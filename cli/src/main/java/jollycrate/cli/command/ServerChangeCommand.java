package jollycrate.cli.command;

import java.util.LinkedHashMap;
import java.util.Map;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.DeliveryView;

/** {@code jolly server change}. */
public final class ServerChangeCommand implements Command {
  private final Session session;

  /** In a session. */
  public ServerChangeCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server change",
            "Change ports, addresses, memory and further values of a server, in servers.toml and on"
                + " the server at once.",
            "A delivery: proven, or taken back in both places. Without any KEY=VALUE the server is"
                + " brought to what servers.toml says.")
        .needs("NAME", "the server, as servers.toml names it")
        .takesMany("KEY=VALUE", "a value as servers.toml takes it; nothing behind = takes it out")
        .takes(Option.DRY_RUN, Option.DIFF)
        .example("jolly server change shop http=8082 memory=1g", "a server that runs is restarted")
        .example("jolly server change shop admin=8083", "give it a listener on loopback alone")
        .example("jolly server change shop --dry-run", "what is not as servers.toml says");
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
            .change(given.operand(0).orElseThrow(), values(given), dryRun));
  }

  private static Map<String, String> values(Given given) {
    Map<String, String> values = new LinkedHashMap<>();
    for (String word : given.operands(1)) {
      int equals = word.indexOf('=');
      if (equals < 1) {
        throw new WrongUsage("'" + word + "' is no KEY=VALUE: write it like http=8082");
      }
      values.put(word.substring(0, equals), word.substring(equals + 1));
    }
    return values;
  }
}

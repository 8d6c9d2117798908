package jollycrate.cli.command;

import java.util.concurrent.Callable;
import jollycrate.cli.ExitCode;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.output.PackView;
import jollycrate.pack.Packed;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** {@code jolly pack}. */
@Command(
    name = "pack",
    description = {
      "Pack what jolly.toml describes into a WAR.",
      "The same input gives the same bytes, on any day and any machine."
    })
public final class PackCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private CommonOptions options;

  /** In a session. */
  public PackCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    Packed packed = session.crate(options).pack();
    if (options.json()) {
      session.screen().json(packed);
    } else {
      new PackView(session.screen()).show(packed);
    }
    return ExitCode.DONE.code();
  }
}

package jollycrate.cli.command;

import java.util.concurrent.Callable;
import picocli.CommandLine.Command;

/** {@code jolly demo}. */
@Command(name = "demo", description = "Show it all in a minute, on a server of its own.")
public final class DemoCommand implements Callable<Integer> {
  private final Session session;

  /** In a session. */
  public DemoCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    return session == null ? 1 : 0;
  }
}

package jollycrate.cli.command;

import java.util.List;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExaminationView;
import jollycrate.cli.output.ExitCode;
import jollycrate.site.Examination;

/** {@code jolly server test}. */
public final class ServerTestCommand implements Command {
  private final Session session;

  /** In a session. */
  public ServerTestCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "server test",
            "Look whether a server is as servers.toml describes it.",
            "Installation, folder, Java, disk, process, ports and what it answers; nothing is"
                + " changed.")
        .needs("NAME", "the server, as servers.toml names it")
        .example("jolly server test shop", "what is wrong there, and what to do about it");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    String name = given.operand(0).orElseThrow();
    List<Examination.Seen> seen = session.crate(given).servers().examine(name);
    boolean wrong = seen.stream().anyMatch(one -> one.verdict() == Examination.Verdict.WRONG);
    ExitCode code = wrong ? ExitCode.CHECKS_FAILED : ExitCode.DONE;
    if (given.json()) {
      return session.ended(code, "seen", seen);
    }
    new ExaminationView(session.screen()).show(name, seen);
    return code.code();
  }
}

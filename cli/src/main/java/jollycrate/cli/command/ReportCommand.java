package jollycrate.cli.command;

import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import jollycrate.app.NotDescribedException;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.ExitCode;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.delivery.ServerService;
import jollycrate.journal.DeliveryRecord;

/** {@code jolly report}. */
public final class ReportCommand implements Command {
  private final Session session;

  /** In a session. */
  public ReportCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "report",
            "Write how a delivery went, from the records on its server.",
            "As HTML page, as JUnit XML, or both; the same that '--report' and '--junit' of the",
            "delivery itself would have written.")
        .takes("NUMBER", "the delivery; else the last one")
        .needs(Option.ON)
        .takes(Option.REPORT, Option.JUNIT)
        .example("jolly report --on shop --report today.html", "the last delivery, as a page")
        .example(
            "jolly report 12 --on shop --junit checks.xml", "its checks, for a pipeline to show");
  }

  @Override
  public int run(Given given) {
    session.interrupts().changesNothing();
    if (given.text(Option.REPORT).isEmpty() && given.text(Option.JUNIT).isEmpty()) {
      throw new WrongUsage("Say what to write: --report FILE for a page, --junit FILE, or both");
    }
    ServerService service = session.crate(given).servers().named(given.server());
    DeliveryRecord record = service.past().one(given.operand(0));
    DeliveryOutcome outcome =
        service
            .past()
            .told(record.delivery())
            .orElseThrow(
                () ->
                    new NotDescribedException(
                        "Cannot tell delivery "
                            + record.delivery()
                            + " again: nothing is kept of it but its line in 'jolly deliveries'"));
    List<Path> written = session.report(given, outcome, record.at(), ExitCode.of(outcome));
    long asked =
        Stream.of(Option.REPORT, Option.JUNIT).flatMap(one -> given.text(one).stream()).count();
    ExitCode code = written.size() == asked ? ExitCode.DONE : ExitCode.USAGE;
    if (given.json()) {
      return session.ended(code, "files", written);
    }
    written.forEach(file -> session.screen().line("Wrote " + file));
    return code.code();
  }
}

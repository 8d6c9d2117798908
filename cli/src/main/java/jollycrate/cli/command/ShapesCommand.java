package jollycrate.cli.command;

import java.util.List;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.ShapesView;
import jollycrate.trial.ShapeRow;

/** {@code jolly try-shapes}. */
public final class ShapesCommand implements Command {
  private final Session session;

  /** In a session. */
  public ShapesCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "try-shapes",
            "Try the application in four shapes, and measure each.",
            "From its build output, as an executable JAR, as an executable WAR and as a plain WAR:"
                + " each is delivered to a scratch place and proven by the same checks; nothing is"
                + " left.")
        .takes(Option.BUILD, Option.NO_BUILD)
        .example("jolly try-shapes", "size, start, first answer and memory, side by side");
  }

  @Override
  public int run(Given given) {
    ShapesView view = new ShapesView(session.screen());
    List<ShapeRow> rows = session.crate(given, view).shapes(given.build(), view::tried);
    if (given.json()) {
      return session.ended(code(rows), "shapes", rows);
    }
    view.sheet(rows);
    return code(rows).code();
  }

  private static ExitCode code(List<ShapeRow> rows) {
    if (rows.stream().noneMatch(row -> row.cannot().isEmpty())) {
      return ExitCode.BLOCKED;
    }
    boolean good = rows.stream().allMatch(row -> !row.cannot().isEmpty() || row.isGood());
    return good ? ExitCode.DONE : ExitCode.CHECKS_FAILED;
  }
}

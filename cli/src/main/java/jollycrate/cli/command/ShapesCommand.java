package jollycrate.cli.command;

import java.util.List;
import java.util.concurrent.Callable;
import jollycrate.cli.options.BuildOptions;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.ShapesView;
import jollycrate.trial.ShapeRow;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

/** {@code jolly try-shapes}. */
@Command(
    name = "try-shapes",
    description = {
      "Try the application in four shapes: from its build output, as an executable JAR, as an"
          + " executable WAR and as a plain WAR.",
      "Each is delivered to a scratch place, proven by the same checks and measured; nothing is"
          + " left."
    })
public final class ShapesCommand implements Callable<Integer> {
  private final Session session;

  @Mixin private CommonOptions options;
  @Mixin private BuildOptions build;

  /** In a session. */
  public ShapesCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    ShapesView view = new ShapesView(session.screen());
    List<ShapeRow> rows = session.crate(options, view).shapes(build.mode(), view::tried);
    if (options.json()) {
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

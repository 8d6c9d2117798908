package jollycrate.cli.command;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import jollycrate.Crate;
import jollycrate.cli.options.BuildOptions;
import jollycrate.cli.options.CommonOptions;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.PackView;
import jollycrate.pack.PackWatch;
import jollycrate.pack.Packed;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code jolly pack}. */
@Command(
    name = "pack",
    description = {
      "Pack what jolly.toml describes.",
      "The same input gives the same bytes, on any day and any machine."
    })
public final class PackCommand implements Callable<Integer> {
  private final Session session;

  @Spec private CommandSpec spec;

  @Mixin private CommonOptions options;

  @Mixin private BuildOptions build;

  @Parameters(
      arity = "0..1",
      paramLabel = "NAME",
      description = "Which [pack.NAME]; else the one that is delivered.")
  private String name;

  @Option(names = "--all", description = "Pack every [pack.NAME]; show one sheet of sizes.")
  private boolean all;

  @Option(names = "--digest", description = "Tell the SHA-256 digest too; --json always does.")
  private boolean digest;

  /** In a session. */
  public PackCommand(Session session) {
    this.session = session;
  }

  @Override
  public Integer call() {
    if (all && name != null) {
      throw new ParameterException(
          spec.commandLine(), "--all packs everything; it goes without NAME");
    }
    PackView view = new PackView(session.screen(), session.setting().folder());
    Crate crate = session.crate(options, view);
    PackWatch watch = options.json() ? PackWatch.NONE : view;
    if (all) {
      showAll(view, crate.packAll(build.mode(), watch));
    } else {
      show(view, crate.pack(Optional.ofNullable(name), build.mode(), watch));
    }
    return ExitCode.DONE.code();
  }

  private void show(PackView view, Packed packed) {
    Optional<String> told = digest(packed);
    if (options.json()) {
      session.done(new PackView.Document(packed, told));
    } else {
      view.show(packed, told);
    }
  }

  private void showAll(PackView view, List<Packed> all) {
    if (options.json()) {
      session.ended(
          ExitCode.DONE,
          "packed",
          all.stream().map(one -> new PackView.Document(one, digest(one))).toList());
    } else {
      view.showAll(all);
      all.forEach(one -> digest(one).ifPresent(told -> view.digest(one, told)));
    }
  }

  private Optional<String> digest(Packed packed) {
    return digest || options.json() ? Optional.of(Crate.digest(packed.file())) : Optional.empty();
  }
}

package jollycrate.cli.command;

import java.util.List;
import java.util.Optional;
import jollycrate.Crate;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.PackView;
import jollycrate.pack.PackWatch;
import jollycrate.pack.Packed;

/** {@code jolly pack}. */
public final class PackCommand implements Command {
  private static final Option ALL =
      Option.of("--all", "pack every [pack.NAME]; show one sheet of sizes");
  private static final Option DIGEST =
      Option.of("--digest", "tell the SHA-256 digest too; --json always does");

  private final Session session;

  /** In a session. */
  public PackCommand(Session session) {
    this.session = session;
  }

  @Override
  public Usage usage() {
    return Usage.of(
            "pack",
            "Pack what jolly.toml describes.",
            "The same input gives the same bytes, on any day and any machine.")
        .takes("NAME", "which [pack.NAME]; else the one that is delivered")
        .takes(ALL, DIGEST, Option.BUILD, Option.NO_BUILD)
        .example("jolly pack", "build if needed, pack what is delivered")
        .example("jolly pack --all", "every shape, with one sheet of sizes");
  }

  @Override
  public int run(Given given) {
    if (given.has(ALL) && given.operand(0).isPresent()) {
      throw new WrongUsage("--all packs everything; it goes without NAME");
    }
    PackView view = new PackView(session.screen(), session.setting().folder());
    Crate crate = session.crate(given, view);
    PackWatch watch = given.json() ? PackWatch.NONE : view;
    if (given.has(ALL)) {
      showAll(given, view, crate.packAll(given.build(), watch));
    } else {
      show(given, view, crate.pack(given.operand(0), given.build(), watch));
    }
    return ExitCode.DONE.code();
  }

  private void show(Given given, PackView view, Packed packed) {
    Optional<String> told = digest(given, packed);
    if (given.json()) {
      session.done(new PackView.Document(packed, told));
    } else {
      view.show(packed, told);
    }
  }

  private void showAll(Given given, PackView view, List<Packed> all) {
    if (given.json()) {
      session.ended(
          ExitCode.DONE,
          "packed",
          all.stream().map(one -> new PackView.Document(one, digest(given, one))).toList());
    } else {
      view.showAll(all);
      all.forEach(one -> digest(given, one).ifPresent(told -> view.digest(one, told)));
    }
  }

  private static Optional<String> digest(Given given, Packed packed) {
    return given.has(DIGEST) || given.json()
        ? Optional.of(Crate.digest(packed.file()))
        : Optional.empty();
  }
}

package jollycrate.cli.options;

import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import jollycrate.app.Durations;
import jollycrate.build.BuildMode;
import jollycrate.delivery.Manner;
import jollycrate.foresee.ChangedThere;
import jollycrate.script.HalfApplied;
import picocli.CommandLine.ParseResult;

/** What somebody wrote behind the name of a command. */
public final class Given {
  private final ParseResult parsed;

  Given(ParseResult parsed) {
    this.parsed = parsed;
  }

  /** Whether a switch or an option is there. */
  public boolean has(Option option) {
    return parsed.hasMatchedOption(option.name());
  }

  /** The value of an option. */
  public Optional<String> text(Option option) {
    return Optional.ofNullable(parsed.matchedOptionValue(option.name(), (Object) null))
        .map(String::valueOf);
  }

  /** The value of an option that is a whole number. */
  public Optional<Integer> number(Option option) {
    return Optional.ofNullable(parsed.matchedOptionValue(option.name(), (Integer) null));
  }

  /** The value of an option that is a length of time. */
  public Optional<Duration> time(Option option) {
    return text(option)
        .map(
            text ->
                Durations.parse(text)
                    .orElseThrow(
                        () ->
                            new WrongUsage(
                                "'"
                                    + text
                                    + "' is no length of time like 90s or 2m, in "
                                    + option.name())));
  }

  /** An argument that is no option, counted from 0. */
  public Optional<String> operand(int index) {
    return Optional.ofNullable(parsed.matchedPositionalValue(index, (String) null));
  }

  /** All arguments from an index on, where a command takes as many as are given. */
  public List<String> operands(int from) {
    return parsed.matchedPositionalValue(from, List.of());
  }

  /** The name of the server that {@link Option#TO}, FROM or ON tells. */
  public String server() {
    return String.valueOf(parsed.matchedOptionValue(Option.TO.name(), (Object) null));
  }

  /** The names of the servers, where several may be told. */
  public List<String> servers() {
    return parsed.matchedOptionValue(Option.ON_EACH.name(), List.of());
  }

  /** Whether a machine reads the output. */
  public boolean json() {
    return parsed.commandSpec().findOption(Option.JSON.name()) != null && has(Option.JSON);
  }

  /**
   * How a delivery is to go about.
   *
   * @param onAdminPort whether it goes to the admin listener
   */
  public Manner manner(boolean onAdminPort) {
    return new Manner(has(Option.DRY_RUN), onAdminPort, changedThere(), halfApplied(), accepted());
  }

  private Set<String> accepted() {
    return parsed.commandSpec().findOption(Option.ACCEPT.name()) == null
        ? Set.of()
        : Set.copyOf(parsed.matchedOptionValue(Option.ACCEPT.name(), List.<String>of()));
  }

  private ChangedThere.Choice changedThere() {
    return text(Option.CHANGED_THERE)
        .map(
            what ->
                switch (what) {
                  case "keep" -> ChangedThere.Choice.KEEP;
                  case "replace" -> ChangedThere.Choice.REPLACE;
                  default -> throw new WrongUsage("'" + what + "' is neither 'keep' nor 'replace'");
                })
        .orElse(ChangedThere.Choice.ASK);
  }

  private HalfApplied halfApplied() {
    return text(Option.HALF_APPLIED)
        .map(
            what ->
                switch (what) {
                  case "done" -> HalfApplied.DONE;
                  case "again" -> HalfApplied.AGAIN;
                  default -> throw new WrongUsage("'" + what + "' is neither 'done' nor 'again'");
                })
        .orElse(HalfApplied.ASK);
  }

  /** Whether the project is built first. */
  public BuildMode build() {
    if (has(Option.BUILD) && has(Option.NO_BUILD)) {
      throw new WrongUsage("--build and --no-build exclude each other");
    }
    if (has(Option.NO_BUILD)) {
      return BuildMode.NEVER;
    }
    return has(Option.BUILD) ? BuildMode.ALWAYS : BuildMode.WHEN_STALE;
  }
}

package jollycrate.cli.options;

import java.util.List;

/**
 * An option of a command.
 *
 * @param names the first is shown, the others are understood too
 * @param label of its value; empty for a switch
 * @param kind of its value
 * @param purpose what it does, without a full stop
 */
public record Option(List<String> names, String label, Kind kind, String purpose) {
  /** Kinds of values. */
  public enum Kind {
    TEXT,
    /** A whole number. */
    NUMBER,
    /** It may be given again and again. */
    TEXTS
  }

  private static final String SERVER = "the server, as servers.toml names it";

  public static final Option TO = server("--to", "--on", "--from");
  public static final Option FROM = server("--from", "--on", "--to");
  public static final Option ON = server("--on", "--to", "--from");
  public static final Option ON_EACH =
      new Option(List.of("--on", "--to", "--from"), "NAME", Kind.TEXTS, SERVER);
  public static final Option DRY_RUN =
      of("--dry-run", "show findings, steps and changes of files; change nothing");
  public static final Option DIFF = of("--diff", "show what changes in files, as unified diffs");
  public static final Option CHANGED_THERE =
      of(
          "--changed-there",
          "WHAT",
          "what somebody changed on the server in files of ours: 'keep' or 'replace'");
  public static final Option HALF_APPLIED =
      of(
          "--half-applied",
          "WHAT",
          "a script of [[before]] that was cut off: 'done' counts it as applied, 'again' applies it");
  public static final Option ACCEPT =
      new Option(
          List.of("--accept"),
          "WHAT",
          Kind.TEXTS,
          "go on although people lose this: a path that a blocker names, or a data source whose"
              + " database is a new, empty one");
  public static final Option BUILD =
      of("--build", "run [build] first; else only when sources are newer than results");
  public static final Option NO_BUILD = of("--no-build", "take what is built, whatever its age");
  public static final Option JUNIT =
      of("--junit", "FILE", "write how it went, check by check, as JUnit XML for a pipeline");
  public static final Option REPORT =
      of("--report", "FILE", "write how it went as one HTML page for people who were not there");
  public static final Option JSON =
      of("--json", "one JSON document on standard output, for machines");
  public static final Option DEBUG = of("--debug", "stack traces for faults");
  public static final Option HELP =
      new Option(List.of("--help", "-h"), "", Kind.TEXT, "show this help");

  /** A switch. */
  public static Option of(String name, String purpose) {
    return of(name, "", purpose);
  }

  /** An option with a value. */
  public static Option of(String name, String label, String purpose) {
    return new Option(List.of(name), label, Kind.TEXT, purpose);
  }

  /** An option whose value is a whole number. */
  public static Option number(String name, String label, String purpose) {
    return new Option(List.of(name), label, Kind.NUMBER, purpose);
  }

  private static Option server(String... names) {
    return new Option(List.of(names), "NAME", Kind.TEXT, SERVER);
  }

  /** The name that is shown. */
  public String name() {
    return names.get(0);
  }

  /** Whether it takes a value. */
  public boolean takesValue() {
    return !label.isEmpty();
  }

  /** The name with its label. */
  public String shown() {
    return takesValue() ? name() + " " + label : name();
  }
}

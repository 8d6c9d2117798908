package jollycrate.cli.options;

import picocli.CommandLine.Option;

/** Options that every command takes. */
public final class CommonOptions {
  @Option(names = "--json", description = "One JSON document on standard output, for machines.")
  private boolean json;

  @Option(names = "--debug", description = "Stack traces for faults.")
  private boolean debug;

  @Option(
      names = {"-h", "--help"},
      usageHelp = true,
      description = "Show this help.")
  private boolean help;

  /** Whether a machine reads the output. */
  public boolean json() {
    return json;
  }

  /** Whether stack traces are wanted. */
  public boolean debug() {
    return debug;
  }
}

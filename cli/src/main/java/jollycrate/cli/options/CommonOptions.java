package jollycrate.cli.options;

import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

/** Options that every command takes. */
public final class CommonOptions {
  @Option(names = "--json", description = "One JSON document on standard output, for machines.")
  private boolean json;

  @Option(names = "--debug", description = "Stack traces for faults.")
  private boolean debug;

  @Mixin private HelpOption help;

  /** Whether a machine reads the output. */
  public boolean json() {
    return json;
  }

  /** Whether stack traces are wanted. */
  public boolean debug() {
    return debug;
  }
}

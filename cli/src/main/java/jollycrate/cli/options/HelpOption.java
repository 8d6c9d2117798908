package jollycrate.cli.options;

import picocli.CommandLine.Option;

/** The option that every command has. */
public final class HelpOption {
  @Option(
      names = {"-h", "--help"},
      usageHelp = true,
      description = "Show this help.")
  private boolean help;
}

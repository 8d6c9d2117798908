package jollycrate.cli.options;

import picocli.CommandLine.Option;

/** The server that a command looks at. */
public final class OnServer {
  @Option(
      names = "--on",
      required = true,
      paramLabel = "NAME",
      description = "The server, as servers.toml names it.")
  private String name;

  /** Its name. */
  public String name() {
    return name;
  }
}

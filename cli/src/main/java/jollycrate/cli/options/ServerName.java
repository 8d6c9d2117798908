package jollycrate.cli.options;

import picocli.CommandLine.Parameters;

/** The server that a command of {@code jolly server} is about. */
public final class ServerName {
  @Parameters(paramLabel = "NAME", description = "The server, as servers.toml names it.")
  private String name;

  /** As {@code servers.toml} names it. */
  public String get() {
    return name;
  }
}

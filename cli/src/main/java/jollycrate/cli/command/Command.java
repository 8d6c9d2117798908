package jollycrate.cli.command;

import java.io.IOException;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Usage;

/** One command of the program. */
public interface Command {
  /** What it is for and what it takes. */
  Usage usage();

  /** Does what was asked for; the exit code. */
  int run(Given given) throws IOException;
}

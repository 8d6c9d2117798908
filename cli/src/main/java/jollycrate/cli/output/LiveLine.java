package jollycrate.cli.output;

import jollycrate.server.Server;
import jollycrate.step.Step;
import jollycrate.watch.Progress;

/** Shows on one line, drawn over again and again, what is being done now. */
public interface LiveLine extends Progress {
  /** Where it is shown. */
  Screen screen();

  @Override
  default void step(Server server, Step step) {
    StepText text = StepText.of(server, step);
    screen().live(text.verb() + " " + text.object());
  }

  @Override
  default void waitingFor(String what) {
    screen().live("waiting for " + what + " ...");
  }
}

package jollycrate.cli.output;

import jollycrate.server.Cause;

/** Shows why something failed. */
public final class FailureView {
  private final Screen screen;

  /** On that screen. */
  public FailureView(Screen screen) {
    this.screen = screen;
  }

  /** A cause under a headline. */
  public void cause(String headline, Cause cause) {
    Style style = screen.style();
    screen.line(style.bad(headline + ": ") + cause.what());
    if (!cause.where().isEmpty()) {
      screen.line("  at    " + style.place(cause.where()));
    }
    String label = "  why   ";
    for (String why : cause.why()) {
      if (!cause.what().contains(why.strip())) {
        screen.line(label + why);
        label = "        ";
      }
    }
    if (!cause.next().isEmpty()) {
      screen.line("  fix   " + style.strong(cause.next()));
    }
  }
}

package jollycrate.cli.output;

import java.util.ArrayList;
import java.util.List;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;

/** Help, as it is read on a screen. */
public final class HelpPage {
  private static final int COLUMN = 24;
  private static final int GAP = 3;
  private static final int CODES = 5;
  private static final String MARGIN = "  ";
  private final Screen screen;
  private final Style style;

  /** On that screen. */
  public HelpPage(Screen screen) {
    this.screen = screen;
    this.style = screen.style();
  }

  /** Of one command. */
  public void show(Usage usage) {
    screen.line(style.strong(usage.synopsis()));
    screen.gap();
    usage.purpose().forEach(sentence -> paragraph(MARGIN, sentence));
    if (!usage.examples().isEmpty()) {
      heading("For example");
      int column = usage.examples().stream().mapToInt(one -> one.line().length()).max().orElse(0);
      usage.examples().forEach(example -> row(column + GAP, example.line(), example.purpose()));
    }
    if (!usage.operands().isEmpty() || !usage.own().isEmpty()) {
      heading("It takes");
      usage.operands().forEach(operand -> row(operand.label(), operand.purpose()));
      usage.own().forEach(this::option);
    }
    heading("As every command");
    usage.common().forEach(this::option);
    heading("It ends with");
    Usage.ENDS.forEach((code, meaning) -> row(CODES, code, meaning));
  }

  private void option(Option option) {
    row(option.shown(), option.purpose());
  }

  /** Of the whole program, with the first sentence of each command. */
  public void overview(List<Usage> all) {
    screen.line(style.strong("jolly COMMAND") + "   deliver Java web applications, and prove it");
    screen.gap();
    paragraph(
        MARGIN,
        "jolly.toml describes the application, servers.toml the servers; both are looked for"
            + " upwards from the current folder.");
    heading("Commands");
    all.forEach(usage -> row(usage.name(), usage.purpose().get(0)));
    heading("To begin");
    row("jolly demo", "see it all in a minute");
    row("jolly deploy --help", "what one command takes, with examples");
    row("jolly --version", "which version this is");
  }

  private void heading(String text) {
    screen.gap();
    screen.line(style.strong(text));
  }

  private void row(String left, String right) {
    row(COLUMN, left, right);
  }

  private void row(int column, String left, String right) {
    String begin = String.format("%-" + column + "s", left);
    for (String line : wrapped(right, style.width() - MARGIN.length() - column)) {
      screen.line(MARGIN + begin + line);
      begin = " ".repeat(column);
    }
  }

  private void paragraph(String margin, String text) {
    wrapped(text, style.width() - margin.length()).forEach(line -> screen.line(margin + line));
  }

  private static List<String> wrapped(String text, int width) {
    List<String> lines = new ArrayList<>();
    StringBuilder line = new StringBuilder();
    for (String word : text.split(" ")) {
      if (line.length() > 0 && line.length() + 1 + word.length() > width) {
        lines.add(line.toString());
        line.setLength(0);
      }
      line.append(line.length() > 0 ? " " : "").append(word);
    }
    lines.add(line.toString());
    return lines;
  }
}

package jollycrate.cli.manual;

import java.util.List;
import java.util.Locale;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.Usage;

/** Manual pages in the language of man(7). */
final class ManualPage {
  private final StringBuilder text = new StringBuilder();

  private ManualPage(String title) {
    line(".TH " + title.toUpperCase(Locale.ROOT) + " 1 \"\" \"Jolly Crate\"");
  }

  static String of(Usage usage) {
    String name = "jolly-" + usage.name().replace(' ', '-');
    ManualPage page = new ManualPage(name);
    page.section("NAME", name + " - " + first(usage));
    page.section("SYNOPSIS", usage.synopsis());
    page.section("DESCRIPTION", String.join(" ", usage.purpose()));
    if (!usage.operands().isEmpty() || !usage.own().isEmpty()) {
      page.line(".SH ARGUMENTS");
      usage.operands().forEach(operand -> page.item(operand.label(), operand.purpose()));
      usage.own().forEach(page::option);
    }
    page.line(".SH COMMON OPTIONS");
    usage.common().forEach(page::option);
    if (!usage.examples().isEmpty()) {
      page.line(".SH EXAMPLES");
      usage.examples().forEach(example -> page.item(example.line(), example.purpose()));
    }
    page.exitStatus();
    page.section("SEE ALSO", "jolly(1)");
    return page.text.toString();
  }

  static String overview(List<Usage> usages) {
    ManualPage page = new ManualPage("jolly");
    page.section("NAME", "jolly - deliver Java web applications, and prove it");
    page.section("SYNOPSIS", "jolly COMMAND");
    page.section(
        "DESCRIPTION",
        "jolly.toml describes the application, servers.toml the servers; both are looked for upwards"
            + " from the current folder.");
    page.line(".SH COMMANDS");
    usages.forEach(usage -> page.item(usage.name(), first(usage)));
    page.exitStatus();
    return page.text.toString();
  }

  private static String first(Usage usage) {
    return usage.purpose().get(0).replaceFirst("\\.$", "");
  }

  private void exitStatus() {
    line(".SH EXIT STATUS");
    Usage.ENDS.forEach((code, meaning) -> item(code, meaning));
  }

  private void section(String name, String content) {
    line(".SH " + name);
    line(escaped(content));
  }

  private void option(Option option) {
    item(option.shown(), option.purpose());
  }

  private void item(String term, String content) {
    line(".TP");
    line(".B " + escaped(term));
    line(escaped(content));
  }

  private void line(String content) {
    text.append(content).append('\n');
  }

  /** A backslash begins an escape, a hyphen may be broken, a dot or quote begins a request. */
  private static String escaped(String content) {
    String plain = content.replace("\\", "\\e").replace("-", "\\-");
    return plain.startsWith(".") || plain.startsWith("'") ? "\\&" + plain : plain;
  }
}

package jollycrate.cli.options;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import jollycrate.app.Nearest;
import picocli.CommandLine;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Model.PositionalParamSpec;

/**
 * What a command is for and what it takes. Its help, its manual page and the completion of shells
 * are made from this, and its arguments are parsed by it.
 */
public final class Usage {
  /** Exit codes of every command, with what they mean. */
  public static final Map<String, String> ENDS = ends();

  private final String name;
  private final List<String> purpose;
  private final List<Operand> operands = new ArrayList<>();
  private final List<Option> needed = new ArrayList<>();
  private final List<Option> options = new ArrayList<>();
  private final List<Example> examples = new ArrayList<>();
  private List<Option> common = List.of(Option.JSON, Option.DEBUG, Option.HELP);

  /**
   * An argument that is no option.
   *
   * @param many whether several may be given; only the last argument takes them
   * @param purpose what it names, without a full stop
   */
  public record Operand(String label, boolean needed, boolean many, String purpose) {
    /** As it stands in a line that shows how the command is called. */
    String shown() {
      String one = needed ? label : "[" + label + "]";
      return many ? one + "..." : one;
    }
  }

  /** A command line and what it does. */
  public record Example(String line, String purpose) {}

  private static Map<String, String> ends() {
    Map<String, String> ends = new LinkedHashMap<>();
    ends.put("0", "done, also when there was nothing to do and the checks pass");
    ends.put("1", "a fault of jolly itself");
    ends.put("2", "wrong usage");
    ends.put("3", "a file that people write is wrong");
    ends.put("4", "a blocker was found, nothing was touched");
    ends.put("5", "failed and taken back");
    ends.put("6", "stuck, needs hands");
    ends.put("7", "checks failed, nothing was changed");
    ends.put("8", "host or server unreachable");
    ends.put("9", "locked by somebody else");
    ends.put("130", "interrupted and taken back");
    return Collections.unmodifiableMap(ends);
  }

  private Usage(String name, List<String> purpose) {
    this.name = name;
    this.purpose = purpose;
  }

  /**
   * Of a command.
   *
   * @param name one or two words
   * @param purpose whole sentences; the first by itself says what it is for
   */
  public static Usage of(String name, String... purpose) {
    return new Usage(name, List.of(purpose));
  }

  /** An argument that must be given. */
  public Usage needs(String label, String what) {
    operands.add(new Operand(label, true, false, what));
    return this;
  }

  /** An option that must be given. */
  public Usage needs(Option option) {
    needed.add(option);
    return this;
  }

  /** An argument that may be given. */
  public Usage takes(String label, String what) {
    operands.add(new Operand(label, false, false, what));
    return this;
  }

  /** An argument that may be given as often as somebody wants. */
  public Usage takesMany(String label, String what) {
    operands.add(new Operand(label, false, true, what));
    return this;
  }

  /** Options that may be given. */
  public Usage takes(Option... more) {
    options.addAll(List.of(more));
    return this;
  }

  /** An example of its use. */
  public Usage example(String line, String what) {
    examples.add(new Example(line, what));
    return this;
  }

  /** For a command that gives no document. */
  public Usage forPeopleOnly() {
    common = List.of(Option.DEBUG, Option.HELP);
    return this;
  }

  /** The words by which it is called. */
  public String name() {
    return name;
  }

  /** What it is for, in sentences. */
  public List<String> purpose() {
    return purpose;
  }

  /** Arguments that are no options, in order. */
  public List<Operand> operands() {
    return List.copyOf(operands);
  }

  /** Options of its own, first those that must be given. */
  public List<Option> own() {
    return Stream.concat(needed.stream(), options.stream()).toList();
  }

  /** Options that nearly every command takes. */
  public List<Option> common() {
    return common;
  }

  /** Examples of its use. */
  public List<Example> examples() {
    return List.copyOf(examples);
  }

  /** How it is called, on one line. */
  public String synopsis() {
    StringBuilder line = new StringBuilder("jolly " + name);
    operands.forEach(operand -> line.append(' ').append(operand.shown()));
    needed.forEach(option -> line.append(' ').append(option.shown()));
    return line.append(options.isEmpty() ? "" : " [options]").toString();
  }

  /**
   * Arguments as they were given.
   *
   * @throws WrongUsage when one is missing, not known, or of another kind
   */
  public Given parse(List<String> arguments) {
    CommandSpec spec = CommandSpec.create().name(name);
    Stream.concat(own().stream(), common.stream()).forEach(option -> spec.addOption(spec(option)));
    for (int i = 0; i < operands.size(); i++) {
      spec.addPositional(spec(operands.get(i), i));
    }
    CommandLine line = new CommandLine(spec);
    line.setExpandAtFiles(false);
    Given given;
    try {
      given = new Given(line.parseArgs(arguments.toArray(String[]::new)));
    } catch (CommandLine.ParameterException e) {
      throw new WrongUsage(told(e));
    }
    if (!given.has(Option.HELP)) {
      mustBeThere(given);
    }
    return given;
  }

  private void mustBeThere(Given given) {
    for (int i = 0; i < operands.size(); i++) {
      if (operands.get(i).needed() && given.operand(i).isEmpty()) {
        throw new WrongUsage(operands.get(i).label() + " is missing: " + operands.get(i).purpose());
      }
    }
    for (Option option : needed) {
      if (given.text(option).isEmpty()) {
        throw new WrongUsage(option.shown() + " is missing: " + option.purpose());
      }
    }
  }

  private static PositionalParamSpec spec(Operand operand, int index) {
    PositionalParamSpec.Builder builder = PositionalParamSpec.builder().paramLabel(operand.label());
    return operand.many()
        ? builder
            .index(index + "..*")
            .arity("0..*")
            .type(List.class)
            .auxiliaryTypes(String.class)
            .build()
        : builder.index("" + index).arity("0..1").type(String.class).build();
  }

  private static OptionSpec spec(Option option) {
    OptionSpec.Builder builder = OptionSpec.builder(option.names().toArray(String[]::new));
    if (!option.takesValue()) {
      return builder.type(boolean.class).arity("0").build();
    }
    switch (option.kind()) {
      case TEXT -> builder.type(String.class);
      case NUMBER -> builder.type(Integer.class);
      case TEXTS -> builder.type(List.class).auxiliaryTypes(String.class);
    }
    return builder.arity("1").paramLabel(option.label()).build();
  }

  private String told(CommandLine.ParameterException e) {
    if (e instanceof CommandLine.UnmatchedArgumentException unmatched
        && !unmatched.getUnmatched().isEmpty()) {
      String word = unmatched.getUnmatched().get(0);
      return "'jolly " + name + "' does not take '" + word + "'" + near(word);
    }
    if (e instanceof CommandLine.MissingParameterException missing
        && missing.getMissing().get(0) instanceof OptionSpec option) {
      return option.names()[0] + " needs a value: " + option.paramLabel();
    }
    if (e.getArgSpec() instanceof OptionSpec option && e.getValue() != null) {
      return "'" + e.getValue() + "' is no whole number, in " + option.names()[0];
    }
    return e.getMessage().replaceFirst("^Error: ", "").replaceFirst("\\.$", "");
  }

  private String near(String word) {
    List<String> known =
        Stream.concat(own().stream(), common.stream())
            .flatMap(option -> option.names().stream())
            .toList();
    return Nearest.to(word.replaceFirst("=.*", ""), known)
        .map(name -> ". Did you mean '" + name + "'?")
        .orElse("");
  }
}

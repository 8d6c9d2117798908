package jollycrate.cli.command;

import com.fasterxml.jackson.annotation.JsonUnwrapped;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import jollycrate.Crate;
import jollycrate.app.Setting;
import jollycrate.cli.options.Given;
import jollycrate.cli.options.Option;
import jollycrate.cli.options.WrongUsage;
import jollycrate.cli.output.EndView;
import jollycrate.cli.output.ExaminationView;
import jollycrate.cli.output.ExitCode;
import jollycrate.cli.output.JUnitReport;
import jollycrate.cli.output.LiveLine;
import jollycrate.cli.output.ReportPage;
import jollycrate.cli.output.Screen;
import jollycrate.delivery.DeliveryOutcome;
import jollycrate.file.IoReason;
import jollycrate.site.Examination;
import jollycrate.watch.Interrupts;
import jollycrate.watch.Progress;

/** What the commands of one run share. */
public final class Session implements AutoCloseable {

  /** Runs a further command in another folder, as the demo does. */
  @FunctionalInterface
  public interface Runner {
    /** The exit code. */
    int run(Setting setting, UnaryOperator<String> environment, String... args);
  }

  private final Screen screen;
  private final Setting setting;
  private final UnaryOperator<String> environment;
  private final Interrupts interrupts;
  private final Runner runner;
  private final List<Crate> crates = new ArrayList<>();
  private boolean debug;
  private Optional<Path> junit = Optional.empty();

  /** For one run. */
  public Session(
      Screen screen,
      Setting setting,
      UnaryOperator<String> environment,
      Interrupts interrupts,
      Runner runner) {
    this.screen = screen;
    this.setting = setting;
    this.environment = environment;
    this.interrupts = interrupts;
    this.runner = runner;
  }

  /** Whether stack traces are wanted. */
  public boolean debug() {
    return debug;
  }

  /** Whether a signal asked to stop. */
  public boolean wasInterrupted() {
    return interrupts.isAsked();
  }

  Screen screen() {
    return screen;
  }

  Setting setting() {
    return setting;
  }

  UnaryOperator<String> environment() {
    return environment;
  }

  Interrupts interrupts() {
    return interrupts;
  }

  Runner runner() {
    return runner;
  }

  /** The core; nobody is told what goes on. */
  Crate crate(Given given) {
    return crate(given, Progress.NONE);
  }

  /** The core, telling what goes on unless a machine reads. */
  Crate crate(Given given, Progress progress) {
    LiveLine onlyWhatGoesOn = () -> screen;
    junit = given.text(Option.JUNIT).map(this::file);
    Stream.of(Option.JUNIT, Option.REPORT)
        .flatMap(report -> given.text(report).stream())
        .map(this::file)
        .forEach(this::mustBeWritable);
    Crate crate =
        new Crate(setting, screen.secrets(), given.json() ? onlyWhatGoesOn : progress, interrupts);
    crates.add(crate);
    return crate;
  }

  /** Ends what is open to other machines. */
  @Override
  public void close() {
    crates.forEach(Crate::close);
  }

  /** What pipelines read of a command that could not be carried out. */
  public void failed(String command, String reason) {
    junit.ifPresent(
        file -> write(file, at -> JUnitReport.write(at, command, reason, screen.secrets()::mask)));
  }

  /** Says whether stack traces are wanted. */
  public void debugging(boolean wanted) {
    debug = wanted;
  }

  /** A file as it is named from the folder of this session. */
  Path file(String name) {
    return setting.folder().resolve(name).normalize();
  }

  /** Shows the end of a delivery; its exit code. */
  int end(Given given, DeliveryOutcome outcome) {
    return end(given, outcome, Duration.ZERO);
  }

  /**
   * The same.
   *
   * @param prepared how long it took to build, to pack and to fetch before
   */
  int end(Given given, DeliveryOutcome outcome, Duration prepared) {
    ExitCode code = ExitCode.of(outcome);
    report(given, outcome, Instant.now(), code);
    if (given.json()) {
      screen.json(new EndedDelivery(code.code(), outcome, prepared.toMillis()));
    } else {
      new EndView(screen).ended(outcome, prepared);
    }
    return code.code();
  }

  /**
   * Writes the reports that are asked for.
   *
   * @param at when it was
   * @return the files that were written
   */
  List<Path> report(Given given, DeliveryOutcome outcome, Instant at, ExitCode code) {
    boolean right = code == ExitCode.DONE;
    UnaryOperator<String> mask = screen.secrets()::mask;
    List<Path> written = new ArrayList<>();
    written(given, Option.JUNIT, file -> new JUnitReport(outcome, right, mask).write(file))
        .ifPresent(written::add);
    written(given, Option.REPORT, file -> new ReportPage(outcome, at, right, mask).write(file))
        .ifPresent(written::add);
    return written;
  }

  private Optional<Path> written(Given given, Option option, Report report) {
    return given.text(option).map(this::file).filter(file -> write(file, report));
  }

  /** Something that is written into a file. */
  private interface Report {
    void write(Path file) throws IOException;
  }

  private boolean write(Path file, Report report) {
    try {
      report.write(file);
      return true;
    } catch (IOException e) {
      screen.note("Cannot write '" + file + "': " + IoReason.of(e));
      return false;
    }
  }

  /** Where a report is to be written is looked at before anything is done. */
  private void mustBeWritable(Path report) {
    if (!Files.isDirectory(report.getParent()) || Files.isDirectory(report)) {
      throw new WrongUsage(
          "Cannot write '" + report + "': it is no file in a folder that is there");
    }
  }

  /**
   * Shows what an examination saw; its exit code.
   *
   * @param right what is said of a thing with which nothing is wrong
   */
  int examined(Given given, String name, List<Examination.Seen> seen, String right) {
    boolean wrong = seen.stream().anyMatch(one -> one.verdict() == Examination.Verdict.WRONG);
    ExitCode code = wrong ? ExitCode.CHECKS_FAILED : ExitCode.DONE;
    if (given.json()) {
      return ended(code, "seen", seen);
    }
    new ExaminationView(screen).show(name, seen, right);
    return code.code();
  }

  /** The document of a delivery that ended. */
  private record EndedDelivery(int exit, @JsonUnwrapped DeliveryOutcome outcome, long prepared) {}

  /** The document of an end. */
  private record Ended(int exit, @JsonUnwrapped Object outcome) {}

  /** Prints the document of a command that did what was asked. */
  int done(Object document) {
    return ended(ExitCode.DONE, document);
  }

  /** Prints the document of a command. */
  int ended(ExitCode code, Object document) {
    screen.json(new Ended(code.code(), document));
    return code.code();
  }

  /** The same of a command that gives a list. */
  int ended(ExitCode code, String name, List<?> list) {
    Map<String, Object> document = new LinkedHashMap<>();
    document.put("exit", code.code());
    document.put(name, list);
    screen.json(document);
    return code.code();
  }
}

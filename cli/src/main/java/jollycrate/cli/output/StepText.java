package jollycrate.cli.output;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import jollycrate.file.Digests;
import jollycrate.server.Part;
import jollycrate.server.Server;
import jollycrate.step.Step;

/** Steps as people read them: a verb and what it is about. */
record StepText(String verb, String object) {
  private static final String ARCHIVE = ".war";
  private static final String MAKE = "make folder";

  static StepText of(Server server, Step step) {
    return step.accept(new Words(server));
  }

  /**
   * Steps with changes of files told by their size; several folders in a row are one line.
   *
   * @param diffs of files, as unified diffs
   */
  static List<StepText> together(Server server, List<Step> steps, List<String> diffs) {
    List<StepText> rows = new ArrayList<>();
    List<StepText> folders = new ArrayList<>();
    for (Step step : steps) {
      StepText row = of(server, step);
      boolean folder = step instanceof Step.MakeFolder || step instanceof Step.RemoveFolder;
      if (!folders.isEmpty() && !folders.get(0).verb.equals(row.verb)) {
        rows.add(oneLine(folders));
        folders.clear();
      }
      if (folder) {
        folders.add(row);
      } else {
        rows.add(
            step.file()
                .map(change -> row.with(size(server.shown(change.path()), diffs)))
                .orElse(row));
      }
    }
    if (!folders.isEmpty()) {
      rows.add(oneLine(folders));
    }
    return rows;
  }

  /** Without those that the others imply: what is around a new one, what is inside an old one. */
  private static StepText oneLine(List<StepText> folders) {
    String verb = folders.get(0).verb;
    List<String> all = folders.stream().map(StepText::object).toList();
    List<String> told =
        all.stream()
            .filter(
                one ->
                    all.stream()
                        .filter(other -> !other.equals(one))
                        .noneMatch(
                            other ->
                                verb.equals(MAKE) ? other.startsWith(one) : one.startsWith(other)))
            .toList();
    return new StepText(told.size() > 1 ? verb + "s" : verb, String.join(" ", told));
  }

  private StepText with(String more) {
    return more.isEmpty() ? this : new StepText(verb, object + "  " + more);
  }

  /** How much of a file changes; empty when it is no text. */
  private static String size(String file, List<String> diffs) {
    return diffs.stream()
        .filter(diff -> diff.lines().limit(2).anyMatch(line -> line.endsWith(" " + file)))
        .findFirst()
        .map(StepText::size)
        .orElse("");
  }

  private static String size(String diff) {
    long added = diff.lines().skip(2).filter(line -> line.startsWith("+")).count();
    long removed = diff.lines().skip(2).filter(line -> line.startsWith("-")).count();
    if (diff.startsWith("--- /dev/null")) {
      return "(new, " + Amounts.count((int) added, "line", "lines") + ")";
    }
    return "(+" + added + " -" + removed + " lines)";
  }

  private record Words(Server server) implements Step.Visitor<StepText> {
    @Override
    public StepText makeFolder(Step.MakeFolder step) {
      return new StepText(MAKE, server.shown(step.path()) + "/");
    }

    @Override
    public StepText putFile(Step.PutFile step) {
      boolean young = step.before() == null;
      String verb =
          switch (step.part()) {
            case SUPPORT, COMPANION -> "put";
            case OWN -> young ? "put" : "change";
            case BESIDE, SWITCH -> young ? "switch on" : "switch";
          };
      return new StepText(verb, server.shown(step.path())).with(carried(step));
    }

    /**
     * An archive that is switched to is not the artifact itself: it carries what its server wants.
     */
    private static String carried(Step.PutFile step) {
      boolean derived = step.part() == Part.SWITCH && step.path().toString().endsWith(ARCHIVE);
      return derived
          ? "(with descriptors inside, SHA-256 " + Digests.brief(step.after().digest()) + ")"
          : "";
    }

    @Override
    public StepText removeFile(Step.RemoveFile step) {
      boolean off = step.part() == Part.SWITCH || step.part() == Part.BESIDE;
      String verb = off ? "switch off" : "remove";
      return new StepText(verb, server.shown(step.path()));
    }

    @Override
    public StepText removeFolder(Step.RemoveFolder step) {
      return new StepText("remove folder", server.shown(step.path()) + "/");
    }

    @Override
    public StepText clearTrace(Step.ClearTrace step) {
      return new StepText("clear", server.shown(step.path()) + " (left by the server)");
    }

    @Override
    public StepText stopServer(Step.StopServer step) {
      return new StepText("stop", server.name() + " (process " + step.process().pid() + ")");
    }

    @Override
    public StepText applyScript(Step.ApplyScript step) {
      String undone = step.undone() ? "" : "  (stays if taken back)";
      return step.counts()
          ? new StepText("count", step.script() + " as applied to " + step.source())
          : new StepText("apply", step.script() + " to " + step.source() + undone);
    }

    @Override
    public StepText startServer(Step.StartServer step) {
      return new StepText("start", server.name());
    }

    @Override
    public StepText holdFront(Step.HoldFront step) {
      return new StepText("hold", step.front().address() + " ready to be switched back");
    }

    @Override
    public StepText reloadFront(Step.ReloadFront step) {
      return new StepText("reload", step.front().address() + " after its syntax test");
    }

    @Override
    public StepText await(Step.Await step) {
      String what =
          switch (step.expected()) {
            case GONE -> "is gone";
            case DRAINED -> "has answered its last request";
            case SWITCHED -> "gets the requests";
            case UP -> "is up";
          };
      return new StepText("wait until", step.placement().application() + " " + what);
    }

    @Override
    public StepText awaitPorts(Step.AwaitPorts step) {
      String ports = step.ports().stream().map(String::valueOf).collect(Collectors.joining(", "));
      return new StepText("wait until", server.name() + " listens on " + ports);
    }

    @Override
    public StepText awaitRead(Step.AwaitRead step) {
      return new StepText("wait until", server.name() + " has read " + server.shown(step.path()));
    }

    @Override
    public StepText checkCertificate(Step.CheckCertificate step) {
      return new StepText("check", "the certificate at " + step.url());
    }

    @Override
    public StepText runChecks(Step.RunChecks step) {
      String at = server.front().isPresent() ? " at " + step.placement().address() : "";
      return new StepText("check", "what " + step.placement().application() + " answers" + at);
    }
  }
}

package jollycrate.cli.output;

import jollycrate.server.Part;
import jollycrate.server.Server;
import jollycrate.step.Step;

/** Steps as people read them: a verb and what it is about. */
record StepText(String verb, String object) {

  static StepText of(Server server, Step step) {
    return step.accept(new Words(server));
  }

  private record Words(Server server) implements Step.Visitor<StepText> {
    @Override
    public StepText makeFolder(Step.MakeFolder step) {
      return new StepText("make folder", server.shown(step.path()) + "/");
    }

    @Override
    public StepText putFile(Step.PutFile step) {
      String verb = step.before() == null ? "switch on" : "switch";
      return new StepText(step.part() == Part.SUPPORT ? "put" : verb, server.shown(step.path()));
    }

    @Override
    public StepText removeFile(Step.RemoveFile step) {
      String verb = step.part() == Part.SUPPORT ? "remove" : "switch off";
      return new StepText(verb, server.shown(step.path()));
    }

    @Override
    public StepText removeFolder(Step.RemoveFolder step) {
      return new StepText("remove folder", server.shown(step.path()) + "/");
    }

    @Override
    public StepText clearTrace(Step.ClearTrace step) {
      return new StepText("clear", server.shown(step.path()) + "/ (left by the stopped server)");
    }

    @Override
    public StepText stopServer(Step.StopServer step) {
      return new StepText("stop", server.name() + " (process " + step.process().pid() + ")");
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
    public StepText runChecks(Step.RunChecks step) {
      String at = server.front().isPresent() ? " at " + step.placement().address() : "";
      return new StepText("check", "what it answers" + at);
    }
  }
}

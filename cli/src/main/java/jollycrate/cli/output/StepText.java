package jollycrate.cli.output;

import jollycrate.server.Part;
import jollycrate.server.Server;
import jollycrate.step.Step;

/** Steps as people read them: a verb and what it is about. */
record StepText(String verb, String object) {

  static StepText of(Server server, Step step) {
    if (step instanceof Step.MakeFolder make) {
      return new StepText("make folder", server.shown(make.path()) + "/");
    }
    if (step instanceof Step.PutFile put) {
      String verb =
          put.part() == Part.SUPPORT ? "put" : put.before() == null ? "switch on" : "switch";
      return new StepText(verb, server.shown(put.path()));
    }
    if (step instanceof Step.RemoveFile remove) {
      String verb = remove.part() == Part.SUPPORT ? "remove" : "switch off";
      return new StepText(verb, server.shown(remove.path()));
    }
    if (step instanceof Step.RemoveFolder remove) {
      return new StepText("remove folder", server.shown(remove.path()) + "/");
    }
    if (step instanceof Step.ClearTrace clear) {
      return new StepText("clear", server.shown(clear.path()) + "/ (left by the stopped server)");
    }
    if (step instanceof Step.StopServer stop) {
      return new StepText("stop", server.name() + " (process " + stop.process().pid() + ")");
    }
    if (step instanceof Step.StartServer) {
      return new StepText("start", server.name());
    }
    if (step instanceof Step.Await await) {
      String what =
          switch (await.expected()) {
            case GONE -> "is gone";
            case DRAINED -> "has answered its last request";
            case SWITCHED -> "gets the requests";
            case UP -> "is up";
          };
      return new StepText("wait until", await.placement().application() + " " + what);
    }
    if (step instanceof Step.HoldFront hold) {
      return new StepText("hold", hold.front().address() + " ready to be switched back");
    }
    if (step instanceof Step.ReloadFront reload) {
      return new StepText("reload", reload.front().address() + " after its syntax test");
    }
    if (step instanceof Step.RunChecks run) {
      String at = server.front().isPresent() ? " at " + run.placement().address() : "";
      return new StepText("check", "what it answers" + at);
    }
    return new StepText("do", step.getClass().getSimpleName());
  }
}

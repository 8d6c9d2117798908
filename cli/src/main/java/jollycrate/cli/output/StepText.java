package jollycrate.cli.output;

import jollycrate.server.Expected;
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
      String what = await.expected() == Expected.GONE ? "is gone" : "is up";
      return new StepText("wait until", await.placement().application() + " " + what);
    }
    return new StepText("check", "what it answers");
  }
}

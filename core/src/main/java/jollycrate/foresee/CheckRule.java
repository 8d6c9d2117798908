package jollycrate.foresee;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import jollycrate.app.Application;
import jollycrate.app.Check;
import jollycrate.app.Expect;

/** Something is asked that shows whether the application works. */
final class CheckRule implements Rule {
  private static final int[] ANY = {200, 404, 500};

  @Override
  public List<Finding> look(Scene scene) {
    Application application = scene.order().application();
    List<Finding> findings = new ArrayList<>();
    boolean silent = !application.program().speaksHttp() && !scene.traits().hosts();
    if (application.checks().isEmpty() && silent) {
      findings.add(Finding.note("checks", "it speaks no HTTP, so only its port is looked at"));
    } else if (application.checks().isEmpty()) {
      findings.add(
          Finding.warn(
              "checks",
              "none is described, so only the root of the application is asked for",
              "",
              "Add a [[check]] to jolly.toml"));
    }
    application.checks().stream()
        .filter(CheckRule::passesAlways)
        .map(
            check ->
                Finding.warn(
                    check.name(),
                    "this check passes whatever is answered",
                    "status = " + check.first().expect().status(),
                    "Expect a status that says that it works, or a 'text'"))
        .forEach(findings::add);
    return findings;
  }

  private static boolean passesAlways(Check check) {
    return check.requests().stream().allMatch(CheckRule::passesAlways);
  }

  private static boolean passesAlways(Check.Request request) {
    Expect expect = request.expect();
    return request.pages() == 0
        && request.remember().isEmpty()
        && IntStream.of(ANY).allMatch(expect.status()::holds)
        && expect.equals(Expect.of(expect.status()));
  }
}

package jollycrate.delivery;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.app.Application;
import jollycrate.app.DataCheck;
import jollycrate.app.DataSource;
import jollycrate.check.CheckResult;
import jollycrate.check.Expectations;
import jollycrate.server.Cause;
import jollycrate.stock.ConnectionTrial;
import jollycrate.watch.Site;

/**
 * Asks data sources on the server's machine, with its Java and from where the application works.
 */
record DataRun(Site site, Application application, Map<String, String> passwords) {
  CheckResult ask(DataCheck check) {
    DataSource source =
        application.dataSources().stream()
            .filter(one -> one.jndiName().equals(check.source()))
            .findFirst()
            .orElseThrow();
    Instant begin = site.time().now();
    ConnectionTrial.Result told =
        new ConnectionTrial(new Looking(site).probe(application))
            .ask(source, passwords.getOrDefault(source.jndiName(), ""), check.query());
    Duration took = Duration.between(begin, site.time().now());
    return switch (told.outcome()) {
      case CONNECTED -> answered(check, Optional.of(told.detail()), took);
      case NO_ROW -> answered(check, Optional.empty(), took);
      case IN_USE, UNTRIED, CUT_OFF, NOT_THERE_YET ->
          result(check, " (" + unasked(told.outcome()) + ")", took, List.of(), "", false);
      case FAILED ->
          result(
              check,
              "",
              took,
              List.of(new CheckResult.Miss("value", "one", told.message())),
              told.message() + ": " + told.detail(),
              true);
    };
  }

  /** What could not be asked proves nothing, and is no failure. */
  private static String unasked(ConnectionTrial.Outcome outcome) {
    return switch (outcome) {
      case IN_USE -> "not asked: its file is open in this very server";
      case UNTRIED -> "not asked: there is no Java there yet that could";
      case NOT_THERE_YET -> "not asked: its file is not there";
      default -> "not asked: its file was cut off";
    };
  }

  private CheckResult answered(DataCheck check, Optional<String> came, Duration took) {
    boolean right =
        came.isPresent()
            && check.value().map(value -> Expectations.holds(value, node(came.get()))).orElse(true);
    String expected = check.value().map(JsonNode::toString).orElse("a row");
    String got = came.orElse("no row");
    return right
        ? result(check, ": " + got, took, List.of(), "", true)
        : result(
            check,
            "",
            took,
            List.of(new CheckResult.Miss("value", expected, got)),
            "the data source told " + got + " instead of " + expected,
            true);
  }

  private static JsonNode node(String text) {
    try {
      return JsonNodeFactory.instance.numberNode(new BigDecimal(text));
    } catch (NumberFormatException noNumber) {
      return JsonNodeFactory.instance.textNode(text);
    }
  }

  private static CheckResult result(
      DataCheck check,
      String besides,
      Duration took,
      List<CheckResult.Miss> misses,
      String why,
      boolean proves) {
    return CheckResult.withoutAnswer(
        check.name(),
        check.source() + besides,
        took,
        misses,
        misses.isEmpty()
            ? Optional.empty()
            : Optional.of(Cause.of(why, "Compare [[data]] with what stands there")),
        proves);
  }
}

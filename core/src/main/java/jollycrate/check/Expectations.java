package jollycrate.check;

import com.fasterxml.jackson.core.JsonPointer;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.math.BigDecimal;
import java.net.URI;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import jollycrate.app.Expect;
import jollycrate.json.Json;

/**
 * Compares an answer with what is expected of it.
 *
 * @param base address of the application, ending in a slash
 */
public record Expectations(Expect expect, URI base) {
  /** What is told of an answer that came too late. */
  static final String TIME = "time";

  private static final int SHOWN = 160;
  private static final int AROUND = 60;

  /** What came otherwise than expected. What an error page says is compared with nothing. */
  List<CheckResult.Miss> misses(URI url, Answer answer) {
    List<CheckResult.Miss> misses = new ArrayList<>();
    if (!expect.status().holds(answer.status())) {
      misses.add(miss("status", expect.status().toString(), "" + answer.status()));
    } else {
      head(url, answer, misses);
      text(answer, misses);
      whole(answer.body(), misses);
      if (!expect.body().json().isEmpty()) {
        misses.addAll(json(answer));
      }
    }
    expect
        .within()
        .filter(within -> answer.took().compareTo(within) > 0)
        .ifPresent(
            within ->
                misses.add(
                    miss(
                        TIME,
                        "within " + within.toMillis() + " ms",
                        answer.took().toMillis() + " ms")));
    return misses;
  }

  private void head(URI url, Answer answer, List<CheckResult.Miss> misses) {
    Expect.Head head = expect.head();
    head.headers()
        .forEach(
            (name, value) -> {
              if (!answer.header(name).equals(value)) {
                misses.add(miss(name, quoted(value), shown(answer.header(name))));
              }
            });
    head.type()
        .filter(expected -> !isType(expected, answer.type()))
        .ifPresent(expected -> misses.add(miss("type", expected, shown(answer.type()))));
    head.leadsTo()
        .map(to -> to.startsWith("/") ? base + to.substring(1) : to)
        .filter(to -> !to.equals(location(url, answer)))
        .ifPresent(to -> misses.add(miss("leads to", to, shown(location(url, answer)))));
  }

  /** Every parameter that is expected must have come; case does not matter (RFC 9110, 8.3.1). */
  private static boolean isType(String expected, String came) {
    Set<String> told = parts(came);
    return told.containsAll(parts(expected))
        && told.iterator().hasNext()
        && told.iterator().next().equals(parts(expected).iterator().next());
  }

  private static Set<String> parts(String type) {
    return Arrays.stream(type.toLowerCase(Locale.ROOT).replace("\"", "").split(";"))
        .map(String::strip)
        .collect(Collectors.toCollection(LinkedHashSet::new));
  }

  private void text(Answer answer, List<CheckResult.Miss> misses) {
    String body = answer.text();
    expect
        .body()
        .text()
        .filter(text -> !body.contains(text))
        .ifPresent(text -> misses.add(miss("text", quoted(text), shown(near(body, text)))));
    expect
        .body()
        .matches()
        .filter(pattern -> !Pattern.compile(pattern).matcher(body).find())
        .ifPresent(pattern -> misses.add(miss("matches", pattern, shown(body))));
  }

  private void whole(Answer.Body body, List<CheckResult.Miss> misses) {
    expect
        .body()
        .size()
        .filter(size -> body.bytes() < size.least() || body.bytes() > size.most())
        .ifPresent(size -> misses.add(miss("size", range(size), bytes(body.bytes()))));
    expect
        .body()
        .sameAs()
        .filter(same -> !same.digest().equals(body.digest().get()))
        .ifPresent(
            same ->
                misses.add(
                    miss(
                        "body",
                        "as in " + same.file() + ", " + bytes(same.bytes()),
                        bytes(body.bytes()) + ": " + shown(body.text()))));
  }

  private static String range(Expect.Size size) {
    if (size.least() == size.most()) {
      return bytes(size.least());
    }
    String most = size.most() == Long.MAX_VALUE ? "" : "at most " + bytes(size.most());
    String least = size.least() == 0 ? "" : "at least " + bytes(size.least());
    return least + (least.isEmpty() || most.isEmpty() ? "" : ", ") + most;
  }

  private static String bytes(long bytes) {
    return bytes + (bytes == 1 ? " byte" : " bytes");
  }

  /** Where it leads, as a whole URL (RFC 9110, section 10.2.2). */
  private static String location(URI url, Answer answer) {
    try {
      return answer.header("Location").isEmpty()
          ? ""
          : url.resolve(answer.header("Location")).toString();
    } catch (IllegalArgumentException noAddress) {
      return answer.header("Location");
    }
  }

  private List<CheckResult.Miss> json(Answer answer) {
    JsonNode body;
    try {
      body = Json.parse(answer.text());
    } catch (JsonProcessingException e) {
      return List.of(miss("body", "JSON", shown(answer.text())));
    }
    List<CheckResult.Miss> misses = new ArrayList<>();
    for (Map.Entry<String, JsonNode> expected : expect.body().json().entrySet()) {
      JsonNode came = body.at(JsonPointer.compile(expected.getKey()));
      if (!holds(expected.getValue(), came)) {
        String text = came.isMissingNode() ? "nothing there" : shown(Json.line(came));
        String what = expected.getKey().isEmpty() ? "the whole" : expected.getKey();
        misses.add(miss(what, Json.line(expected.getValue()), text));
      }
    }
    return misses;
  }

  /** Whether a value is the expected one, or answers what is asked of it. */
  public static boolean holds(JsonNode expected, JsonNode came) {
    return Expect.asks(expected)
        ? expected.properties().stream()
            .allMatch(asked -> answers(asked.getKey(), asked.getValue(), came))
        : same(expected, came);
  }

  private static boolean answers(String question, JsonNode expected, JsonNode came) {
    return switch (question) {
      case "exists" -> came.isMissingNode() != expected.asBoolean();
      case "count" -> came.isContainerNode() && came.size() == expected.asInt();
      case "least" -> number(came).filter(it -> it.compareTo(decimal(expected)) >= 0).isPresent();
      default -> number(came).filter(it -> it.compareTo(decimal(expected)) <= 0).isPresent();
    };
  }

  private static BigDecimal decimal(JsonNode expected) {
    return expected.decimalValue();
  }

  private static Optional<BigDecimal> number(JsonNode came) {
    return Optional.of(came).filter(JsonNode::isNumber).map(JsonNode::decimalValue);
  }

  private static boolean same(JsonNode expected, JsonNode came) {
    return expected.equals(Expectations::compared, came);
  }

  /** Numbers are the same whose values are, however they are written (RFC 8259, section 6). */
  private static int compared(JsonNode one, JsonNode other) {
    if (one.isNumber() && other.isNumber()) {
      return one.decimalValue().compareTo(other.decimalValue());
    }
    return one.equals(other) ? 0 : 1;
  }

  private static CheckResult.Miss miss(String what, String expected, String got) {
    return new CheckResult.Miss(what, expected, got);
  }

  private static String quoted(String text) {
    return '"' + text + '"';
  }

  /** The part of a text that is most like what was looked for: where its first word stands. */
  private static String near(String body, String text) {
    String first = text.strip().split("\\s+")[0];
    Matcher at = Pattern.compile(Pattern.quote(first), Pattern.CASE_INSENSITIVE).matcher(body);
    return first.isEmpty() || !at.find() ? body : body.substring(Math.max(0, at.start() - AROUND));
  }

  private static String shown(String text) {
    String line = text.strip().replaceAll("\\s+", " ");
    if (line.isEmpty()) {
      return "nothing";
    }
    return line.length() > SHOWN ? line.substring(0, SHOWN) + "…" : line;
  }
}

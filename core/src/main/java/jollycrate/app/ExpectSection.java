package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import jollycrate.file.Digests;
import jollycrate.file.IoReason;
import jollycrate.file.SmallFile;
import org.tomlj.TomlArray;
import org.tomlj.TomlTable;

/** Reads what a request of a check expects of its answer. */
final class ExpectSection {
  private static final String LEADS_TO = "leads-to";
  private static final String MATCHES = "matches";
  private static final String TYPE = "type";
  private static final String SIZE = "size";

  /** Of an answer that is compared whole. */
  private static final long MOST_BYTES = 64 << 20;

  private static final String SAME_AS = "same-as";
  private static final String CERTIFICATE = "certificate-days";
  private static final int MOST_DAYS = 3650;

  private final Section section;

  ExpectSection(Section section) {
    this.section = section;
  }

  Expect read() {
    Optional<String> leadsTo = section.text(LEADS_TO);
    leadsTo
        .filter(to -> !to.matches("(/|https?://|\\{" + Values.NAME_FORM + "\\})\\S*"))
        .ifPresent(
            to ->
                section.problem(
                    LEADS_TO,
                    "'" + to + "' is no place to be sent on to",
                    "Begin it with '/', below the context path, or write a whole URL"));
    return new Expect(
        statuses(leadsTo.isPresent() ? Statuses.REDIRECTION : Statuses.SUCCESS),
        new Expect.Head(section.textsByName("headers"), type(), leadsTo),
        body(),
        section.duration("within"),
        section.number(CERTIFICATE, 1, MOST_DAYS).map(Long::intValue));
  }

  private Optional<String> type() {
    Optional<String> type = section.text(TYPE);
    type.filter(text -> !text.matches("[\\w.+-]+/[\\w.+-]+(\\s*;\\s*[\\w-]+=[\\w.\"-]+){0,20}"))
        .ifPresent(
            text ->
                section.problem(
                    TYPE,
                    "'" + text + "' is no type of media",
                    "Write it like \"application/json\" or \"text/html; charset=utf-8\""));
    return type;
  }

  private Expect.Body body() {
    Optional<String> matches = section.text(MATCHES);
    matches.ifPresent(pattern -> section.mustBePattern(MATCHES, pattern));
    return new Expect.Body(section.text("text"), matches, json(), size(), sameAs());
  }

  private Optional<Expect.Size> size() {
    Optional<Object> value = section.value(SIZE);
    if (value.isPresent() && value.get() instanceof Long bytes && bytes >= 0) {
      return Optional.of(new Expect.Size(bytes, bytes));
    }
    if (value.isPresent() && value.get() instanceof TomlTable) {
      Section range = section.section(SIZE);
      long least = range.number("least", 0, Long.MAX_VALUE).orElse(0L);
      long most = range.number("most", 0, Long.MAX_VALUE).orElse(Long.MAX_VALUE);
      range.end();
      if (least > most || range.keys().isEmpty()) {
        section.problem(SIZE, "no size is at least that and at most this", "Fix one of them");
      }
      return Optional.of(new Expect.Size(least, most));
    }
    if (value.isPresent()) {
      section.problem(
          SIZE,
          "'size' is no number of bytes",
          "Write size = 1200, or size = { least = 100, most = 5000 }");
    }
    return Optional.empty();
  }

  private Optional<Expect.Same> sameAs() {
    return section
        .text(SAME_AS)
        .flatMap(
            file -> {
              Path path = section.folder(SAME_AS).resolve(file);
              try {
                byte[] bytes = SmallFile.bytes(path, MOST_BYTES);
                return Optional.of(new Expect.Same(file, bytes.length, Digests.of(bytes)));
              } catch (IOException e) {
                section.problem(
                    SAME_AS,
                    "cannot read '" + path + "': " + IoReason.of(e),
                    "Name a file beside this one");
                return Optional.empty();
              }
            });
  }

  private Map<String, JsonNode> json() {
    Map<String, JsonNode> expected = new LinkedHashMap<>();
    section
        .table("json")
        .ifPresent(
            table -> {
              for (String pointer : table.keySet()) {
                mustBePointer(pointer);
                JsonNode value = TomlJson.of(table.get(List.of(pointer)));
                mustBeAnswerable(pointer, value);
                expected.put(pointer, value);
              }
            });
    return expected;
  }

  private void mustBePointer(String pointer) {
    if (!pointer.isEmpty() && !pointer.startsWith("/")) {
      section.problem(
          "json", "'" + pointer + "' is no JSON Pointer", "Begin it with '/', like \"/0/bike\"");
    }
  }

  private void mustBeAnswerable(String pointer, JsonNode value) {
    if (!Expect.asks(value)) {
      return;
    }
    List<String> wrong = new ArrayList<>();
    value
        .properties()
        .forEach(
            question -> {
              boolean right =
                  question.getKey().equals("exists")
                      ? question.getValue().isBoolean()
                      : question.getValue().isNumber();
              if (!right) {
                wrong.add(question.getKey());
              }
            });
    wrong.forEach(
        key ->
            section.problem(
                "json",
                "'" + key + "' of " + pointer + " is told by another kind of value",
                "Write exists = true or false, and numbers for count, least and most"));
  }

  private Statuses statuses(Statuses usual) {
    Optional<Object> value = section.value("status");
    if (value.isEmpty()) {
      return usual;
    }
    List<String> told =
        value.get() instanceof TomlArray list
            ? list.toList().stream().map(String::valueOf).toList()
            : List.of(String.valueOf(value.get()));
    List<String> wrong = told.stream().filter(text -> !Statuses.isOne(text)).toList();
    if (!wrong.isEmpty() || told.isEmpty()) {
      section.problem(
          "status",
          "'" + String.join(", ", wrong) + "' is no status",
          "Write 200, \"2xx\", \"200-204\", or a list of them");
    }
    return new Statuses(told);
  }
}

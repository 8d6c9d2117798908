package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import java.util.stream.Collectors;
import jollycrate.secret.Reference;
import org.tomlj.TomlArray;
import org.tomlj.TomlTable;

/** Reads one {@code [[check]]}. */
final class CheckSection {
  private static final String PAGE = "page";
  private static final String BODY = "body";
  private static final String FORM = "form";
  private static final String SEND_HEADERS = "send-headers";

  /** By which one logs in, in small letters. */
  private static final Set<String> SECRET_HEADERS =
      Set.of("authorization", "proxy-authorization", "cookie");

  private static final String LEADS_TO = "leads-to";
  private static final String MATCHES = "matches";
  private static final String TYPE = "type";
  private static final List<String> METHODS =
      List.of("get", "head", "post", "put", "patch", "delete", PAGE);

  private final Section section;
  private final List<User> users;

  CheckSection(Section section, List<User> users) {
    this.section = section;
    this.users = users;
  }

  Check read() {
    List<String> methods = METHODS.stream().filter(section::has).toList();
    if (methods.size() > 1) {
      section.problem(
          methods.get(1), "a check makes one request, not " + methods.size(), "Write two checks");
    }
    if (methods.isEmpty()) {
      section.missing("get", "Say what to ask for, like get = \"/api/tickets\"");
    }
    String key = methods.isEmpty() ? "get" : methods.get(0);
    boolean page = key.equals(PAGE);
    String method = page ? "GET" : key.toUpperCase(Locale.ROOT);
    String path = path(section, key, section.text(key).orElse("/"));
    Optional<String> user = section.text("as");
    user.ifPresent(name -> mustBeAbleToLogIn(section, "as", name, users));
    Check check =
        new Check(
            section.text("name").orElse(page ? "page " + path : method + " " + path),
            new Ask(method, path, sentHeaders(), sent(), user),
            expect(),
            page,
            fromHost(),
            Optional.empty());
    section.end();
    return check;
  }

  private Optional<Ask.Sent> sent() {
    Optional<JsonNode> body = section.value(BODY).map(TomlJson::of);
    if (body.isPresent() && section.has(FORM)) {
      section.problem(FORM, "a request has one body: 'body' or 'form'", "Remove one of them");
    }
    Map<String, String> form = texts(FORM);
    mustBeMeantAsWritten(FORM, form);
    if (!form.isEmpty()) {
      String text =
          form.entrySet().stream()
              .map(field -> encoded(field.getKey()) + "=" + encoded(field.getValue()))
              .collect(Collectors.joining("&"));
      return Optional.of(new Ask.Sent("application/x-www-form-urlencoded", text));
    }
    return body.map(json -> new Ask.Sent("application/json", json.toString()));
  }

  private Map<String, String> sentHeaders() {
    Map<String, String> headers = texts(SEND_HEADERS);
    mustBeMeantAsWritten(SEND_HEADERS, headers);
    if (headers.keySet().stream()
        .map(name -> name.toLowerCase(Locale.ROOT))
        .anyMatch(SECRET_HEADERS::contains)) {
      section.problem(
          SEND_HEADERS, "a secret must not stand in this file", "Log in with 'as', by BASIC");
    }
    return headers;
  }

  /** What looks like a reference would be taken for one by whoever wrote it. */
  private void mustBeMeantAsWritten(String key, Map<String, String> texts) {
    texts.values().stream()
        .filter(text -> Reference.of(text, Path.of("")).isPresent())
        .forEach(
            text ->
                section.problem(
                    key,
                    "'" + text + "' would be sent as it is written",
                    "Log in with 'as': secrets are not put into requests otherwise"));
  }

  private static String encoded(String text) {
    return URLEncoder.encode(text, StandardCharsets.UTF_8);
  }

  private Expect expect() {
    Optional<String> leadsTo = section.text(LEADS_TO);
    leadsTo
        .filter(to -> !to.startsWith("/") && !to.matches("https?://\\S+"))
        .ifPresent(
            to ->
                section.problem(
                    LEADS_TO,
                    "'" + to + "' is no place to be sent on to",
                    "Begin it with '/', below the context path, or write a whole URL"));
    Optional<String> matches = section.text(MATCHES);
    matches.ifPresent(this::mustBePattern);
    Optional<String> type = section.text(TYPE);
    type.filter(text -> !text.matches("[\\w.+-]+/[\\w.+-]+"))
        .ifPresent(
            text ->
                section.problem(
                    TYPE,
                    "'" + text + "' is no type of media",
                    "Write it without parameters, like \"application/json\""));
    return new Expect(
        statuses(leadsTo.isPresent() ? Statuses.REDIRECTION : Statuses.SUCCESS),
        texts("headers"),
        type,
        section.text("text"),
        matches,
        json(),
        leadsTo,
        section.duration("within"));
  }

  private void mustBePattern(String text) {
    try {
      Pattern.compile(text);
    } catch (PatternSyntaxException e) {
      section.problem(
          MATCHES,
          "'" + text + "' is no regular expression: " + e.getDescription(),
          "Fix it at its character " + (e.getIndex() + 1));
    }
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

  private boolean fromHost() {
    Optional<String> from = section.text("from");
    from.filter(told -> !told.equals("here") && !told.equals("host"))
        .ifPresent(
            told ->
                section.problem(
                    "from",
                    "'" + told + "' is no place to ask from",
                    "Write \"here\", or \"host\" for the server's own machine"));
    return from.filter("host"::equals).isPresent();
  }

  /** A path with its query below the context path. */
  static String path(Section section, String key, String path) {
    Optional<String> fault = fault(path);
    fault.ifPresent(
        why ->
            section.problem(
                key,
                "'" + path + "' is no path below the context path: " + why,
                "Begin it with '/' and percent-encode what may not stand in a URL"));
    return fault.isPresent() ? "/" : path;
  }

  /** Why a path with its query cannot stand in a request (RFC 3986); empty when it can. */
  private static Optional<String> fault(String path) {
    if (!path.startsWith("/")) {
      return Optional.of("it does not begin with '/'");
    }
    if (!path.chars().allMatch(c -> c > ' ' && c < 0x7f)) {
      return Optional.of("it holds something that is not printable ASCII");
    }
    try {
      return new URI("http://host" + path).getFragment() == null
          ? Optional.empty()
          : Optional.of("what follows '#' is never sent");
    } catch (URISyntaxException e) {
      return Optional.of(e.getReason() + " (at its character " + (e.getIndex() - 10) + ")");
    }
  }

  /** A table of texts. */
  private Map<String, String> texts(String key) {
    Map<String, String> texts = new LinkedHashMap<>();
    table(key)
        .ifPresent(
            table ->
                table
                    .keySet()
                    .forEach(name -> texts.put(name, String.valueOf(table.get(List.of(name))))));
    texts.values().stream()
        .filter(text -> text.chars().anyMatch(Character::isISOControl))
        .findFirst()
        .ifPresent(text -> section.problem(key, "a value holds a control character", "Remove it"));
    return texts;
  }

  private Optional<TomlTable> table(String key) {
    Optional<Object> value = section.value(key);
    if (value.isPresent() && !(value.get() instanceof TomlTable)) {
      section.problem(
          key, "'" + key + "' is no table", "Write it like " + key + " = { name = \"value\" }");
    }
    return value.filter(TomlTable.class::isInstance).map(TomlTable.class::cast);
  }

  private Map<String, JsonNode> json() {
    Map<String, JsonNode> expected = new LinkedHashMap<>();
    table("json")
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

  /** A user whose password is known here. */
  static void mustBeAbleToLogIn(Section section, String key, String name, List<User> users) {
    Optional<User> user = users.stream().filter(u -> u.name().equals(name)).findFirst();
    if (user.isEmpty()) {
      String fix = Section.fixFor(name, users.stream().map(User::name).toList());
      section.problem(key, "there is no user '" + name + "' in [users]", fix);
    } else if (user.get().password().isEmpty()) {
      section.problem(
          key,
          "the password of '" + name + "' is not known here",
          "Write " + name + " = { existing = \"env:...\" } in [users]");
    }
  }
}

package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.net.URI;
import java.net.URISyntaxException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.tomlj.TomlTable;

/** Reads one {@code [[check]]}. */
final class CheckSection {
  private static final List<String> METHODS =
      List.of("get", "head", "post", "put", "patch", "delete");

  private final Section section;
  private final List<User> users;

  CheckSection(Section section, List<User> users) {
    this.section = section;
    this.users = users;
  }

  Check read() {
    List<String> methods = new ArrayList<>();
    for (String method : METHODS) {
      if (section.has(method)) {
        methods.add(method);
      }
    }
    if (methods.size() > 1) {
      section.problem(
          methods.get(1), "a check makes one request, not " + methods.size(), "Write two checks");
    }
    if (methods.isEmpty()) {
      section.missing("get", "Say what to ask for, like get = \"/api/tickets\"");
    }
    String method = methods.isEmpty() ? "get" : methods.get(0);
    String path = path(method);
    Optional<String> user = section.text("as");
    user.ifPresent(this::mustBeAbleToLogIn);
    Check check =
        new Check(
            section.text("name").orElse(method.toUpperCase(Locale.ROOT) + " " + path),
            method.toUpperCase(Locale.ROOT),
            path,
            section.value("body").map(TomlJson::of),
            section.number("status", 100, 599).map(Long::intValue),
            section.text("text"),
            json(),
            section.duration("within"),
            user,
            fromHost());
    section.end();
    return check;
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

  private String path(String method) {
    String path = section.text(method).orElse("/");
    Optional<String> fault = fault(path);
    fault.ifPresent(
        why ->
            section.problem(
                method,
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

  private Map<String, JsonNode> json() {
    Optional<Object> value = section.value("json");
    Map<String, JsonNode> expected = new LinkedHashMap<>();
    if (value.isPresent() && value.get() instanceof TomlTable table) {
      for (String pointer : table.keySet()) {
        if (!pointer.isEmpty() && !pointer.startsWith("/")) {
          section.problem(
              "json",
              "'" + pointer + "' is no JSON Pointer",
              "Begin it with '/', like \"/0/bike\"");
        }
        expected.put(pointer, TomlJson.of(table.get(List.of(pointer))));
      }
    } else if (value.isPresent()) {
      section.problem("json", "'json' is no table", "Write it like { \"/0/bike\" = \"Tandem\" }");
    }
    return expected;
  }

  private void mustBeAbleToLogIn(String name) {
    Optional<User> user = users.stream().filter(u -> u.name().equals(name)).findFirst();
    if (user.isEmpty()) {
      String fix = Section.fixFor(name, users.stream().map(User::name).toList());
      section.problem("as", "there is no user '" + name + "' in [users]", fix);
    } else if (user.get().password().isEmpty()) {
      section.problem(
          "as",
          "the password of '" + name + "' is not known here",
          "Write " + name + " = { existing = \"env:...\" } in [users]");
    }
  }
}

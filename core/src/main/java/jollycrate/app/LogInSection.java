package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;
import jollycrate.secret.Reference;

/** Reads {@code [logins]}: how people log in for checks. */
final class LogInSection {
  private static final String FORM = "form";
  private static final String TOKEN = "token";
  private static final String PASSWORD = "password";
  private static final String POST = "post";
  private static final String BODY = "body";
  private static final String TOKEN_AT = "token-at";
  private static final JsonNode USUAL =
      JsonNodeFactory.instance.objectNode().put("username", "{user}").put("password", "{password}");

  private final Section section;
  private final List<User> users;

  LogInSection(Section section, List<User> users) {
    this.section = section;
    this.users = users;
  }

  Map<String, LogIn> read() {
    Map<String, LogIn> logIns = new TreeMap<>();
    for (String name : section.keys()) {
      Section one = section.section(name);
      logIns.put(name, one(one, name));
      one.end();
    }
    return logIns;
  }

  private LogIn one(Section one, String name) {
    Optional<String> form = one.text(FORM).map(path -> RequestSection.path(one, FORM, path));
    Optional<Reference> token = one.reference(TOKEN);
    Optional<Reference> password = one.reference(PASSWORD);
    if (Stream.of(FORM, POST, TOKEN).filter(one::has).count() != 1) {
      one.problem(
          TOKEN,
          "'" + name + "' logs in by a form, by a request or by a token",
          "Write form = \"/PAGE\", a page that asks for it, post = \"/PATH\", or token = \"env:NAME\"");
    }
    boolean known =
        users.stream().anyMatch(user -> user.name().equals(name) && user.password().isPresent());
    boolean asked = one.has(FORM) || one.has(POST);
    if (asked && !one.has(PASSWORD) && !known) {
      one.missing(PASSWORD, "Write where it stands, or describe '" + name + "' in [users]");
    }
    if (one.has(TOKEN) && one.has(PASSWORD)) {
      one.problem(PASSWORD, "who shows a token has no password", "Remove one of them");
    }
    return new LogIn(form, post(one), token.or(() -> password));
  }

  private static Optional<LogIn.Post> post(Section one) {
    Optional<JsonNode> body = one.table(BODY).map(TomlJson::of);
    Optional<Check.Place> token =
        one.text(TOKEN_AT).map(told -> PlaceText.read(one, TOKEN_AT, told));
    if (!one.has(POST)) {
      Stream.of(BODY, TOKEN_AT)
          .filter(one::has)
          .forEach(key -> one.problem(key, "only a request has it", "Write post = \"/PATH\""));
    }
    return one.text(POST)
        .map(path -> RequestSection.path(one, POST, path))
        .map(path -> new LogIn.Post(path, body.orElse(USUAL), token));
  }
}

package jollycrate.app;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import jollycrate.secret.Reference;

/** Reads {@code [logins]}: how people log in for checks. */
final class LogInSection {
  private static final String FORM = "form";
  private static final String TOKEN = "token";
  private static final String PASSWORD = "password";

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
    if (one.has(FORM) == one.has(TOKEN)) {
      one.problem(
          TOKEN,
          "'" + name + "' logs in by a form or by a token",
          "Write form = \"/PAGE\", a page that asks for it, or token = \"env:NAME\"");
    }
    boolean known =
        users.stream().anyMatch(user -> user.name().equals(name) && user.password().isPresent());
    if (one.has(FORM) && !one.has(PASSWORD) && !known) {
      one.missing(PASSWORD, "Write where it stands, or describe '" + name + "' in [users]");
    }
    if (one.has(TOKEN) && one.has(PASSWORD)) {
      one.problem(PASSWORD, "who shows a token has no password", "Remove one of them");
    }
    return new LogIn(form, token.or(() -> password));
  }
}

package jollycrate.app;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import jollycrate.secret.Reference;

/** Reads one request of a check. */
final class RequestSection {
  /** A page with all that it refers to. */
  static final String PAGE = "page";

  static final List<String> METHODS =
      List.of("get", "head", "post", "put", "patch", "delete", PAGE);

  private static final String BODY = "body";
  private static final String FORM = "form";
  private static final String UPLOAD = "upload";
  private static final String SEND_HEADERS = "send-headers";
  private static final String REMEMBER = "remember";
  private static final String BROWSER = "browser";
  private static final String DEPTH = "depth";
  private static final int MOST_DEPTH = 5;
  private static final int MOST_UPLOADED = 256 << 10;

  /** By which one logs in, in small letters. */
  private static final Set<String> SECRET_HEADERS =
      Set.of("authorization", "proxy-authorization", "cookie");

  private final Section section;
  private final Access access;

  RequestSection(Section section, Access access) {
    this.section = section;
    this.access = access;
  }

  /**
   * Reads it.
   *
   * @param as who logs in when it says nothing of that
   * @param known names that stand for something by then
   */
  Check.Request read(Optional<String> as, Set<String> known) {
    List<String> methods = METHODS.stream().filter(section::has).toList();
    if (methods.size() > 1) {
      section.problem(
          methods.get(1),
          "this is one request, not " + methods.size(),
          "Write two checks, or [[check.request]] for each");
    }
    if (methods.isEmpty()) {
      section.missing("get", "Say what to ask for, like get = \"/api/tickets\"");
    }
    String key = methods.isEmpty() ? "get" : methods.get(0);
    String method = key.equals(PAGE) ? "GET" : key.toUpperCase(Locale.ROOT);
    String path = section.text(key).orElse("/");
    Values.names(path).stream()
        .filter(name -> !known.contains(name))
        .forEach(
            name ->
                section.problem(
                    key,
                    "'{" + name + "}' stands for nothing here",
                    "Remember it from an earlier request, or write it in [values]"));
    path(section, key, path.replaceFirst("^\\{" + Values.NAME_FORM + "}", "/"));
    Optional<String> user = section.text("as");
    user.ifPresent(name -> mustBeAbleToLogIn(section, "as", name, access));
    return new Check.Request(
        new Ask(method, path, sentHeaders(), sent(), user.or(() -> as)),
        new ExpectSection(section).read(),
        remembered(),
        pages(),
        browser());
  }

  private boolean browser() {
    if (section.has(BROWSER) && !section.has(PAGE)) {
      section.problem(
          BROWSER, "only a page is loaded by a browser", "Write page = \"/\", or remove 'browser'");
    }
    return section.truth(BROWSER);
  }

  private int pages() {
    boolean page = section.has(PAGE);
    if (section.has(DEPTH) && !page) {
      section.problem(DEPTH, "only a page is followed", "Write page = \"/\", or remove 'depth'");
    }
    int depth = section.number(DEPTH, 1, MOST_DEPTH).map(Long::intValue).orElse(1);
    return page ? depth : 0;
  }

  private Map<String, Check.Place> remembered() {
    Map<String, Check.Place> places = new LinkedHashMap<>();
    section
        .textsByName(REMEMBER)
        .forEach(
            (name, told) -> {
              if (!name.matches(Values.NAME_FORM)) {
                section.problem(
                    REMEMBER,
                    "'" + name + "' is no name for a value",
                    "Use small letters, digits and '-', beginning with a letter");
              }
              places.put(name, PlaceText.read(section, REMEMBER, told));
            });
    return places;
  }

  private Optional<Ask.Sent> sent() {
    Optional<JsonNode> body = section.value(BODY).map(TomlJson::of);
    Map<String, String> form = section.textsByName(FORM);
    mustBeMeantAsWritten(FORM, form);
    List<Ask.Upload> uploads = uploads();
    if (body.isPresent() && (section.has(FORM) || section.has(UPLOAD))) {
      section.problem(
          section.has(FORM) ? FORM : UPLOAD,
          "a request has one body: 'body', or 'form' and 'upload'",
          "Remove one of them");
    }
    boolean nothing = body.isEmpty() && form.isEmpty() && uploads.isEmpty();
    return nothing ? Optional.empty() : Optional.of(new Ask.Sent(body, form, uploads));
  }

  private List<Ask.Upload> uploads() {
    List<Ask.Upload> uploads = new ArrayList<>();
    section
        .textsByName(UPLOAD)
        .forEach(
            (field, file) -> {
              Path path = section.folder(UPLOAD).resolve(file);
              try {
                if (Files.size(path) > MOST_UPLOADED) {
                  section.problem(
                      UPLOAD,
                      "'" + file + "' has more than " + (MOST_UPLOADED >> 10) + " kB",
                      "Send a smaller one: it is kept with each release");
                  return;
                }
                String base64 = Base64.getEncoder().encodeToString(Files.readAllBytes(path));
                uploads.add(new Ask.Upload(field, path.getFileName().toString(), base64));
              } catch (IOException e) {
                section.problem(
                    UPLOAD, "Cannot read '" + path + "'", "Name a file beside this one");
              }
            });
    return uploads;
  }

  private Map<String, String> sentHeaders() {
    Map<String, String> headers = section.textsByName(SEND_HEADERS);
    mustBeMeantAsWritten(SEND_HEADERS, headers);
    if (headers.keySet().stream()
        .map(name -> name.toLowerCase(Locale.ROOT))
        .anyMatch(SECRET_HEADERS::contains)) {
      section.problem(
          SEND_HEADERS,
          "a secret must not stand in this file",
          "Log in with 'as'; how that is done stands in [logins]");
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
  private static Optional<String> fault(String told) {
    String path = told.replaceAll("\\{" + Values.NAME_FORM + "}", "x");
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

  /** A user whose password is known here. */
  static void mustBeAbleToLogIn(Section section, String key, String name, Access access) {
    if (access.logIns().containsKey(name)) {
      return;
    }
    List<User> users = access.users();
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

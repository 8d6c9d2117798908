package jollycrate.check;

import java.net.URI;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.server.Cause;

/** What an answer that came otherwise than expected says about who gave it. */
final class Verdict {
  private static final int SERVER_ERROR = 500;

  private static final Pattern TWICE = Pattern.compile("^(/.+)\\1(?:/(.*))?$");

  private Verdict() {}

  static CheckResult result(
      String name,
      String method,
      URI url,
      Answer answer,
      List<CheckResult.Miss> misses,
      boolean proves) {
    boolean onlySlow = misses.size() == 1 && misses.get(0).what().equals(Expectations.TIME);
    Optional<Cause> cause =
        misses.isEmpty()
            ? Optional.empty()
            : Optional.of(onlySlow ? tooSlow(url) : cause(url, answer));
    return CheckResult.of(name, method + " " + url, answer, misses, cause, proves);
  }

  static Cause notLetIn(URI url, CheckResult.Miss miss) {
    return cause(
        url,
        miss.expected().replace(" is ", " was not ") + ": " + miss.got(),
        "Compare [logins], [users] and what they refer to");
  }

  static Cause slow(URI url, boolean errors) {
    return errors
        ? cause(url, "not every answer was right when it was asked again and again", "Read its log")
        : cause(
            url,
            "the answers were right, but came too late",
            "Look at what takes so long, or raise the limits in 'time' of the check");
  }

  private static Cause tooSlow(URI url) {
    return cause(
        url,
        "the answer was right, but it came too late",
        "Look at what takes so long, or raise 'within' of the check");
  }

  static Cause seenByAll(URI url) {
    return cause(
        url,
        "somebody sees it who is to be kept out",
        "Compare what guards it (security-constraint in web.xml, annotations) and [roles]");
  }

  /**
   * What was made to stand at the root of a server, and stands elsewhere.
   *
   * @param base where it stands
   * @param missing what is missing for that, and asked for at the root
   */
  static Cause builtForTheRoot(URI url, URI base, String missing) {
    String path = base.getPath();
    return cause(
        url,
        missing + ", and the application stands at " + path.replaceFirst("/$", ""),
        "Build the front end for "
            + path
            + " as its base path or with relative paths, or deliver it at path = \"/\"");
  }

  static CheckResult.Miss none(Answer answer) {
    return new CheckResult.Miss("answer", "one", answer.failure());
  }

  private static Cause cause(URI url, Answer answer) {
    if (!answer.came()) {
      return new Cause(answer.failure(), url.toString(), List.of(), answer.next(), -1);
    }
    return switch (answer.status()) {
      case 401 ->
          cause(
              url, "the log-in was not accepted", "Compare [users] and the password it refers to");
      case 403 ->
          cause(url, "this user is known but not allowed in", "Compare [roles] with web.xml");
      case 404 -> notFound(url);
      case 405 -> cause(url, "this path does not take this method", "Fix the check's method");
      case 502, 503, 504 ->
          cause(
              url,
              "the application is not there for the server or proxy that answered",
              "Read its log");
      default ->
          answer.status() >= SERVER_ERROR
              ? cause(url, "the application failed with an error of its own", "Read its log")
              : cause(url, "the application answered, but otherwise than described", "");
    };
  }

  private static Cause notFound(URI url) {
    Matcher twice = TWICE.matcher(String.valueOf(url.getPath()));
    return twice.find()
        ? cause(
            url,
            "the context path " + twice.group(1) + " stands twice in what was asked for",
            "A check's path begins below it: write \"/" + twice.group(2) + "\"")
        : cause(
            url,
            "nothing is mapped to this path",
            "Compare the path with the servlet mappings (web.xml, annotations)");
  }

  static Cause cause(URI url, String what, String next) {
    return new Cause(what, url.toString(), List.of(), next, -1);
  }
}

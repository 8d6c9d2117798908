package jollycrate.app;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/** Reads one {@code [[check]]}. */
final class CheckSection {
  private static final String REQUEST = "request";
  private static final String AFTERWARDS = "afterwards";
  private static final String VARIES = "varies";
  private static final String TIME = "time";
  private static final int REQUESTS = 100;
  private static final int MOST_REQUESTS = 1_000_000;
  private static final int MOST_AT_ONCE = 64;

  private final Section section;
  private final Access access;
  private final Values values;

  /**
   * @param values what stands in {@code [values]}
   */
  CheckSection(Section section, Access access, Values values) {
    this.section = section;
    this.access = access;
    this.values = values;
  }

  Check read() {
    Optional<String> user = section.text("as");
    user.ifPresent(name -> RequestSection.mustBeAbleToLogIn(section, "as", name, access));
    Set<String> known = new HashSet<>(values.known().keySet());
    known.add(Values.UNIQUE);
    List<Check.Request> requests =
        section.has(REQUEST)
            ? several(REQUEST, user, known)
            : List.of(new RequestSection(section, access).read(user, known));
    List<Check.Request> afterwards = several(AFTERWARDS, user, known);
    if (section.has(REQUEST)) {
      mustSayItOnce();
    }
    if (fromHost() && requests.stream().anyMatch(Check.Request::browser)) {
      section.problem(
          "from", "a browser asks from here", "Remove it, or ask for the page without 'browser'");
    }
    Ask first = requests.get(0).ask();
    String usual = (requests.get(0).pages() > 0 ? "page " : first.method() + " ") + first.path();
    Check check =
        new Check(
            section.text("name").orElse(usual),
            requests.stream().map(values::in).toList(),
            afterwards.stream().map(values::in).toList(),
            new Check.Manner(
                fromHost(),
                section.duration("retry-for").orElse(Duration.ZERO),
                load(requests),
                varies()),
            Optional.empty());
    section.end();
    return check;
  }

  /** The requests of a list; what one remembers is known to those behind it. */
  private List<Check.Request> several(String key, Optional<String> user, Set<String> known) {
    List<Check.Request> requests = new ArrayList<>();
    for (Section one : section.sections(key)) {
      Check.Request request = new RequestSection(one, access).read(user, known);
      one.end();
      known.addAll(request.remember().keySet());
      requests.add(request);
    }
    return requests;
  }

  private void mustSayItOnce() {
    RequestSection.METHODS.stream()
        .filter(section::has)
        .forEach(
            method ->
                section.problem(
                    method,
                    "a check makes one request, or those of [[check.request]]",
                    "Write it as a [[check.request]], too"));
  }

  private List<String> varies() {
    List<String> varies = section.texts(VARIES);
    varies.stream()
        .filter(text -> !text.startsWith("/"))
        .forEach(pattern -> section.mustBePattern(VARIES, pattern));
    return varies;
  }

  private Optional<Check.Load> load(List<Check.Request> requests) {
    if (!section.has(TIME)) {
      return Optional.empty();
    }
    boolean once = requests.size() == 1 && requests.get(0).pages() == 0;
    if (!once || !requests.get(0).ask().isSafe()) {
      section.problem(
          TIME,
          "only one request that changes nothing is made again and again",
          "Write a check with 'get' for it");
    }
    Section time = section.section(TIME);
    Map<String, Duration> most = new TreeMap<>();
    Check.Load.PERCENTILES.forEach(
        key -> time.duration(key).ifPresent(longest -> most.put(key, longest)));
    int count = time.number("requests", 1, MOST_REQUESTS).map(Long::intValue).orElse(REQUESTS);
    int atOnce = time.number("at-once", 1, MOST_AT_ONCE).map(Long::intValue).orElse(1);
    time.end();
    return Optional.of(new Check.Load(count, atOnce, most));
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
}

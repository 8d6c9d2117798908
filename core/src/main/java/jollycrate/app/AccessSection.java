package jollycrate.app;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import jollycrate.app.Check.Cell;

/** Reads one {@code [[access]]}: who may see some paths, and who may not. */
final class AccessSection {
  /** What may be seen is there. */
  private static final Statuses SEEN = Statuses.SUCCESS;

  /** Whoever may not see something is refused, or sent to where one logs in. */
  private static final Statuses REFUSED = new Statuses(List.of("401", "403", "3xx"));

  private static final String PATHS = "paths";
  private static final String ALLOWED = "allowed";
  private static final String DENIED = "denied";

  private final Section section;
  private final Access access;

  AccessSection(Section section, Access access) {
    this.section = section;
    this.access = access;
  }

  /** A check for each path and each of them. */
  List<Check> read() {
    List<String> paths = section.texts(PATHS);
    List<String> allowed = section.texts(ALLOWED);
    List<String> denied = section.texts(DENIED);
    if (paths.isEmpty()) {
      section.missing(PATHS, "Name what is to be seen, like paths = [\"/ledger\"]");
    }
    if (allowed.isEmpty() && denied.isEmpty()) {
      section.missing(ALLOWED, "Name users in 'allowed' or 'denied'; \"anyone\" is not logged in");
    }
    allowed.stream()
        .filter(denied::contains)
        .forEach(
            who ->
                section.problem(
                    DENIED, "'" + who + "' is both allowed and denied", "Keep one of them"));
    List<Check> checks = new ArrayList<>();
    for (String told : paths) {
      String path = RequestSection.path(section, PATHS, told);
      allowed.forEach(who -> checks.add(check(path, ALLOWED, who, true)));
      denied.forEach(who -> checks.add(check(path, DENIED, who, false)));
    }
    section.end();
    return checks;
  }

  private Check check(String path, String key, String who, boolean allowed) {
    Optional<String> user = Optional.of(who).filter(name -> !name.equals(Cell.ANYONE));
    user.ifPresent(name -> RequestSection.mustBeAbleToLogIn(section, key, name, access));
    return new Check(
        who + (allowed ? " may see " : " may not see ") + path,
        List.of(new Check.Request(Ask.get(path, user), Expect.of(allowed ? SEEN : REFUSED))),
        List.of(),
        Check.Manner.PLAIN,
        Optional.of(new Cell(path, user, allowed)));
  }
}

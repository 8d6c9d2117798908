package jollycrate.tomcat;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.server.Cause;
import jollycrate.trace.LogRecord;

/**
 * A data source that TomEE gives in place of one that it does not find: the application works then,
 * on a database that nobody meant.
 */
final class WrongLink {
  private static final Pattern LINKED =
      Pattern.compile("Auto-linking resource-ref '([^']+)' in bean .* to Resource\\(id=(.+)\\)");
  private static final Pattern CREATED =
      Pattern.compile("Auto-creating a [Rr]esource with id '([^']+)' of type '[^']*DataSource.*");

  private static final Pattern ADJUSTED =
      Pattern.compile(
          "Adjusting PersistenceUnit \\S+ <(?:non-)?jta-data-source> to Resource ID '([^']+)' from"
              + " '([^']+)'");

  /** Where a unit names none. */
  private static final String NONE = "null";

  /** What TomEE calls by itself what it offers. */
  private static final String ITS_OWN = "openejb/";

  private static final Pattern SCOPE = Pattern.compile("^java:(comp/env|comp|module|app|global)/");

  private WrongLink() {}

  /** The first one; empty when every name that is asked for leads to what has it. */
  static Optional<Cause> in(List<LogRecord> records) {
    return records.stream().flatMap(record -> cause(record).stream()).findFirst();
  }

  private static Optional<Cause> cause(LogRecord record) {
    Matcher linked = LINKED.matcher(record.message());
    if (linked.matches() && !linked.group(1).startsWith(ITS_OWN)) {
      return another(linked.group(1), linked.group(2), record);
    }
    Matcher adjusted = ADJUSTED.matcher(record.message());
    if (adjusted.matches() && !adjusted.group(2).equals(NONE)) {
      return another(adjusted.group(2), adjusted.group(1), record);
    }
    Matcher created = CREATED.matcher(record.message());
    return created.matches()
        ? Optional.of(cause(created.group(1), created.group(1), "one of its own making", record))
        : Optional.empty();
  }

  private static Optional<Cause> another(String name, String given, LogRecord record) {
    String asked = SCOPE.matcher(name).replaceFirst("");
    boolean same = given.equals(asked) || given.endsWith("/" + asked);
    return same ? Optional.empty() : Optional.of(cause(name, asked, given, record));
  }

  private static Cause cause(String name, String asked, String given, LogRecord record) {
    return new Cause(
        "the application asks for '" + name + "', and the server gives it another: " + given,
        "",
        List.of(record.message()),
        "Describe [datasource.\"" + asked + "\"], or ask for one that is described",
        record.position());
  }
}

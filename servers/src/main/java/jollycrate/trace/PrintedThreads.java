package jollycrate.trace;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.server.Cause;

/** Reads what a Java process prints of its threads when it is asked to (SIGQUIT). */
public final class PrintedThreads {
  private static final Pattern FRAME =
      Pattern.compile("^\\s+at (?:[^(]*/)?([^/(]+)(\\(.*\\))$", Pattern.MULTILINE);
  private static final String LAST_LINE = "JNI global refs";

  private final Pattern starting;
  private final List<String> packages;

  /**
   * Threads that start applications.
   *
   * @param names of such threads, a regular expression
   * @param packages of the application's own classes
   */
  public PrintedThreads(String names, List<String> packages) {
    this.starting = Pattern.compile("^\"(" + names + ")\".*$", Pattern.MULTILINE);
    this.packages = packages;
  }

  /** Where a thread that deploys stands inside the application; empty until all is printed. */
  public Optional<Cause> starting(String printed) {
    if (!printed.contains(LAST_LINE)) {
      return Optional.empty();
    }
    Matcher thread = starting.matcher(printed);
    while (thread.find()) {
      int end = printed.indexOf("\n\n", thread.end());
      String frames = printed.substring(thread.end(), end < 0 ? printed.length() : end);
      Optional<String> own = ownFrame(frames);
      if (own.isPresent()) {
        String why = "its starting thread \"" + thread.group(1) + "\" stands there";
        return Optional.of(new Cause("", own.get(), List.of(why), "", thread.start()));
      }
    }
    return Optional.empty();
  }

  private Optional<String> ownFrame(String frames) {
    Matcher frame = FRAME.matcher(frames);
    while (frame.find()) {
      String method = frame.group(1);
      int type = method.lastIndexOf('.', Math.max(0, method.lastIndexOf('.') - 1));
      if (packages.contains(type < 0 ? "" : method.substring(0, type))) {
        return Optional.of(method + frame.group(2));
      }
    }
    return Optional.empty();
  }
}

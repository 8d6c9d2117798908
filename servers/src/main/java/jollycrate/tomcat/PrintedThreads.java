package jollycrate.tomcat;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.server.Cause;

/** Reads what a Java process prints of its threads when it is asked to (SIGQUIT). */
final class PrintedThreads {
  private static final Pattern THREAD =
      Pattern.compile("^\"((?:main|Catalina-utility-\\d+))\".*$", Pattern.MULTILINE);
  private static final Pattern FRAME =
      Pattern.compile("^\\s+at (?:[^(]*/)?([^/(]+)(\\(.*\\))$", Pattern.MULTILINE);
  private static final String LAST_LINE = "JNI global refs";

  private final List<String> packages;

  PrintedThreads(List<String> packages) {
    this.packages = packages;
  }

  /** Where a thread that deploys stands inside the application; empty until all is printed. */
  Optional<Cause> starting(String printed) {
    if (!printed.contains(LAST_LINE)) {
      return Optional.empty();
    }
    Matcher thread = THREAD.matcher(printed);
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

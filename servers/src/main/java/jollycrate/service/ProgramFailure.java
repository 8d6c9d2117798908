package jollycrate.service;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import jollycrate.artifact.JavaLevel;
import jollycrate.server.Cause;
import jollycrate.trace.KnownException;
import jollycrate.trace.StackTrace;

/** Finds in what a program printed why it failed. */
final class ProgramFailure {
  private static final int MOST_EVIDENCE = 4;
  private static final Pattern TRACE =
      Pattern.compile(
          "^(?:Exception in thread \"[^\"]*\" |.*\\b)?((?:[a-zA-Z_$][\\w$]*\\.){1,60}[A-Z][\\w$]*"
              + "(?:Exception|Error))(?::.*)?\\R(?=\\s+at |Caused by: )",
          Pattern.MULTILINE);
  private static final List<Known> KNOWN =
      List.of(
          new Known(
              "^Error: Could not find or load main class (\\S+)",
              m -> "there is no main class " + m.group(1) + " in the artifact",
              "Name another 'main', or pack the class that the manifest names"),
          new Known(
              "^no main manifest attribute, in (.*)$",
              m -> "the artifact is not executable: its manifest names no Main-Class",
              "Pack it in the shape merged-jar or executable-war, or name 'main' in [program]"),
          new Known(
              "^Error: Main method not found in class (\\S+?),",
              m -> "class " + m.group(1) + " has no main method",
              "Name another 'main' in [program]"),
          new Known(
              "^Error: (?:Invalid or corrupt jarfile|Unable to access jarfile) (.*)$",
              m -> "Java cannot open the artifact",
              "Build it again"),
          new Known(
              "UnsupportedClassVersionError: (\\S+) has been compiled by a more recent version.*"
                  + "class file version (\\d+)",
              m ->
                  "it needs Java "
                      + JavaLevel.javaOf(Integer.parseInt(m.group(2)))
                      + " or newer ("
                      + m.group(1).replace('/', '.')
                      + ")",
              "Give the server another 'java' in servers.toml, or compile with a lower --release"),
          new Known(
              "^(?:\\S*/)?(?:sh|exec|jolly-run)?.*?(/\\S+/java): (?:not found|No such file.*)$",
              m -> "there is no Java at " + m.group(1),
              "Fix 'java' of the server in servers.toml"),
          new Known(
              "^(?:Error: )?(Unrecognized VM option.*|Unrecognized option.*|Invalid (?:maximum|"
                  + "initial) heap size.*|Conflicting collector.*|Improperly specified VM.*)$",
              m -> "Java does not take its options: " + m.group(1),
              "Fix 'java' in [program], or 'java-options' and 'memory' in servers.toml"),
          new Known(
              "^(Error occurred during initialization of VM)\\R(.*)$",
              m -> "Java does not start: " + m.group(2),
              "Fix 'java' in [program], or 'java-options' and 'memory' in servers.toml"),
          new Known(
              "does not \"opens (\\S+)\" to",
              m -> "a library of it reaches into " + m.group(1) + " of Java, which does not let it",
              "Use a newer release of that library, an older 'java' in servers.toml, or add"
                  + " --add-opens=java.base/java.lang=ALL-UNNAMED (with that package) to 'java' in"
                  + " [program]"),
          new Known(
              "OutOfMemoryError: (.*)$",
              m -> "it ran out of memory (" + m.group(1).strip() + ")",
              "Give it more 'memory' in servers.toml"),
          new Known(
              "(?:BindException|Address already in use)(?:: (.*))?.*$",
              m -> "a port that it opens is taken",
              "End the other program, or give the server another port in servers.toml"));

  /** A line that tells it all, with what it means. */
  private record Known(Pattern line, Function<Matcher, String> what, String next) {
    Known(String line, Function<Matcher, String> what, String next) {
      this(Pattern.compile(line, Pattern.MULTILINE), what, next);
    }
  }

  private final List<String> packages;

  ProgramFailure(List<String> packages) {
    this.packages = packages;
  }

  Optional<Cause> in(String output) {
    for (Known known : KNOWN) {
      Matcher line = known.line().matcher(output);
      if (line.find()) {
        StackTrace trace = traceAt(output, lineStart(output, line.start()));
        return Optional.of(
            new Cause(
                known.what().apply(line),
                trace.ownFrame(packages).filter(frame -> !packages.isEmpty()).orElse(""),
                List.of(lineAt(output, line.start())),
                known.next(),
                line.start()));
      }
    }
    return thrown(output);
  }

  private Optional<Cause> thrown(String output) {
    Matcher found = TRACE.matcher(output);
    if (!found.find()) {
      return Optional.empty();
    }
    int begin = found.start(1);
    StackTrace trace = traceAt(output, begin);
    if (trace.isEmpty()) {
      return Optional.empty();
    }
    StackTrace.Thrown root = trace.root();
    Optional<KnownException> known = KnownException.of(root);
    List<String> why = new ArrayList<>();
    trace.chain().stream()
        .map(StackTrace.Thrown::told)
        .distinct()
        .limit(MOST_EVIDENCE)
        .forEach(why::add);
    return Optional.of(
        new Cause(
            known.map(KnownException::what).orElse(root.told()),
            trace.ownFrame(packages).orElse(""),
            List.copyOf(why),
            known.map(KnownException::next).orElse("Read the whole trace: jolly server log NAME"),
            begin));
  }

  /** The trace that begins at a place and goes on as long as its lines belong to it. */
  private static StackTrace traceAt(String output, int begin) {
    List<String> lines = new ArrayList<>();
    for (String line : (Iterable<String>) output.substring(begin).lines()::iterator) {
      if (!lines.isEmpty() && !StackTrace.isPart(line)) {
        break;
      }
      lines.add(line);
    }
    return StackTrace.in(lines);
  }

  private static int lineStart(String text, int position) {
    return text.lastIndexOf('\n', position) + 1;
  }

  private static String lineAt(String text, int position) {
    int end = text.indexOf('\n', position);
    return text.substring(lineStart(text, position), end < 0 ? text.length() : end).strip();
  }
}

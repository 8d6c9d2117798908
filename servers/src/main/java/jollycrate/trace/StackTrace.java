package jollycrate.trace;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** A chain of exceptions as Java prints it, from the outermost to the root. */
public record StackTrace(List<Thrown> chain) {
  private static final Pattern EXCEPTION =
      Pattern.compile(
          "^(?:Caused by: |Exception in thread \"[^\"]*\" )?"
              + "((?:[a-zA-Z_$][\\w$]*\\.){1,60}[A-Z][\\w$]*)(?:: (.*))?$");
  private static final Pattern FRAME =
      Pattern.compile("^\\s*at (?:[^(]*/)?([^/(]+\\([^)]*\\))(?:\\s.*)?$");
  private static final Pattern FOREIGN =
      Pattern.compile(
          "^(java|javax|jakarta|jdk|sun|com\\.sun|org\\.apache\\.(catalina|coyote|tomcat|naming"
              + "|jasper|juli|openejb|tomee|webbeans|myfaces|cxf|bval|openjpa|xbean|felix)"
              + "|org\\.(eclipse\\.jetty|jboss|wildfly|xnio|glassfish|osgi)"
              + "|com\\.ibm\\.(ws|wsspi|websphere)|io\\.(undertow|openliberty)|com\\.zaxxer\\.hikari|jollycrate\\.insidejetty)\\..*");

  /** One exception of a chain, with the frames below it. */
  public record Thrown(String type, String message, List<String> frames) {
    /** Its class without the package. */
    public String simpleType() {
      return type.substring(type.lastIndexOf('.') + 1);
    }

    /** What it says. */
    public String told() {
      return message.isEmpty() ? simpleType() : simpleType() + ": " + message;
    }
  }

  /** The exceptions in some lines; other lines between them are passed over. */
  public static StackTrace in(List<String> lines) {
    List<Thrown> chain = new ArrayList<>();
    for (String line : lines) {
      Matcher exception = EXCEPTION.matcher(line.strip());
      Matcher frame = FRAME.matcher(line);
      if (exception.matches()) {
        String message = exception.group(2) == null ? "" : tidy(exception.group(2));
        chain.add(new Thrown(exception.group(1), message, new ArrayList<>()));
      } else if (frame.matches() && !chain.isEmpty()) {
        chain.get(chain.size() - 1).frames().add(frame.group(1));
      }
    }
    return new StackTrace(List.copyOf(chain));
  }

  /** Whether a line begins or continues a trace. */
  public static boolean isPart(String line) {
    return FRAME.matcher(line).matches()
        || line.startsWith("Caused by: ")
        || line.matches("\\s*\\.\\.\\. \\d+ (more|common frames omitted)")
        || line.matches("\\s+Suppressed: .*");
  }

  /** Whether there is none. */
  public boolean isEmpty() {
    return chain.isEmpty();
  }

  /** The innermost exception. */
  public Thrown root() {
    return chain.get(chain.size() - 1);
  }

  /**
   * The innermost frame of the application's own code.
   *
   * @param packages of its classes; empty: whatever is of no known server or the JDK
   */
  public Optional<String> ownFrame(List<String> packages) {
    return ownFrame(packages, List.of());
  }

  /**
   * The same beside a server whose own classes are not known here.
   *
   * @param server packages of its classes, with all below them
   */
  public Optional<String> ownFrame(List<String> packages, List<String> server) {
    List<String> innermostFirst = new ArrayList<>();
    for (int i = chain.size() - 1; i >= 0; i--) {
      innermostFirst.addAll(chain.get(i).frames());
    }
    return innermostFirst.stream()
        .filter(frame -> packages.contains(packageOf(frame)))
        .findFirst()
        .or(
            () ->
                innermostFirst.stream()
                    .filter(frame -> packages.isEmpty() && !FOREIGN.matcher(frame).matches())
                    .filter(frame -> server.stream().noneMatch(one -> frame.startsWith(one + ".")))
                    .findFirst());
  }

  private static String packageOf(String frame) {
    int parenthesis = frame.indexOf('(');
    String method = parenthesis < 0 ? frame : frame.substring(0, parenthesis);
    int name = method.lastIndexOf('.');
    int type = name < 0 ? -1 : method.lastIndexOf('.', name - 1);
    return type < 0 ? "" : method.substring(0, type);
  }

  /** Without the announcement of a statement that stands on the next line. */
  private static String tidy(String message) {
    return message.strip().replaceFirst("; SQL statement:$", "");
  }
}

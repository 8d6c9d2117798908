package jollycrate.service;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * An {@code upstream} block in a configuration of nginx, and where its servers stand in the text.
 *
 * @param open place behind its opening brace
 * @param close place of its closing brace
 * @param servers from the first character of each {@code server} directive to behind its semicolon
 */
record Upstream(int open, int close, List<Range> servers) {
  /** A part of the text. */
  record Range(int from, int to) {}

  /** What keeps the text from being edited, and the fix. */
  record Fault(String message, String fix) {}

  /** A word, a brace or a semicolon. */
  private record Token(String text, int from, int to) {}

  /** What keeps the upstream of that name from being edited; empty when nothing does. */
  static Optional<Fault> fault(String text, String name) {
    if (text.isEmpty()) {
      return Optional.of(
          new Fault("there is no such configuration file", "Fix 'config' of the front"));
    }
    List<Upstream> found = all(text, name);
    if (found.size() != 1) {
      return Optional.of(
          new Fault(
              (found.isEmpty() ? "there is no upstream '" : "there are several upstreams '")
                  + name
                  + "' in it",
              "Write 'upstream "
                  + name
                  + " { server 127.0.0.1:8091; }' there, and 'proxy_pass http://"
                  + name
                  + ";' where its requests go, or fix 'upstream' of the front"));
    }
    return found.get(0).servers().isEmpty()
        ? Optional.of(new Fault("its upstream '" + name + "' has no server", "Give it one"))
        : Optional.empty();
  }

  /** The one upstream of that name; empty when there is none, or several. */
  static Optional<Upstream> in(String text, String name) {
    List<Upstream> found = all(text, name);
    return found.size() == 1 ? Optional.of(found.get(0)) : Optional.empty();
  }

  private static List<Upstream> all(String text, String name) {
    List<Token> tokens = tokens(text);
    List<Upstream> found = new ArrayList<>();
    for (int i = 0; i + 2 < tokens.size(); i++) {
      boolean begins =
          tokens.get(i).text().equals("upstream")
              && tokens.get(i + 1).text().equals(name)
              && tokens.get(i + 2).text().equals("{");
      if (begins) {
        found.add(block(tokens, i + 3, tokens.get(i + 2).to()));
      }
    }
    return found;
  }

  private static Upstream block(List<Token> tokens, int first, int open) {
    List<Range> servers = new ArrayList<>();
    int directive = first;
    for (int i = first; i < tokens.size(); i++) {
      String text = tokens.get(i).text();
      if (text.equals("}")) {
        return new Upstream(open, tokens.get(i).from(), servers);
      }
      if (text.equals(";")) {
        if (tokens.get(directive).text().equals("server")) {
          servers.add(new Range(tokens.get(directive).from(), tokens.get(i).to()));
        }
        directive = i + 1;
      }
    }
    return new Upstream(open, open, List.of());
  }

  private static List<Token> tokens(String text) {
    List<Token> tokens = new ArrayList<>();
    int at = 0;
    while (at < text.length()) {
      char c = text.charAt(at);
      int from = at;
      if (Character.isWhitespace(c)) {
        at++;
        continue;
      } else if (c == '#') {
        int end = text.indexOf('\n', at);
        at = end < 0 ? text.length() : end;
        continue;
      } else if (c == '{' || c == '}' || c == ';') {
        at++;
      } else {
        at = c == '"' || c == '\'' ? quoted(text, at) : word(text, at);
      }
      tokens.add(new Token(text.substring(from, at), from, at));
    }
    return tokens;
  }

  private static int quoted(String text, int start) {
    int at = start + 1;
    while (at < text.length() && text.charAt(at) != text.charAt(start)) {
      at += text.charAt(at) == '\\' ? 2 : 1;
    }
    return Math.min(text.length(), at + 1);
  }

  private static int word(String text, int start) {
    int at = start;
    while (at < text.length()
        && !Character.isWhitespace(text.charAt(at))
        && ";{}".indexOf(text.charAt(at)) < 0) {
      at += text.charAt(at) == '\\' ? 2 : 1;
    }
    return Math.min(text.length(), at);
  }
}

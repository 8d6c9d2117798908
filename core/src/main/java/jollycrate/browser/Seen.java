package jollycrate.browser;

import java.util.List;

/**
 * What a browser saw of a page.
 *
 * @param calls what it asked for, the page itself first
 * @param errors that were written to its console, or thrown by a script, with their places
 * @param picture of what it showed, as JPEG in Base64; empty when there is none
 */
public record Seen(List<Call> calls, List<String> errors, String picture) {
  /**
   * One thing that it asked for.
   *
   * @param status HTTP status; 0 when no answer came
   * @param failure why none came; empty when one did
   */
  public record Call(String method, String url, int status, String failure) {}
}

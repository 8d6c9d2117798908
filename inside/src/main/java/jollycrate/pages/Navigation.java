package jollycrate.pages;

import java.util.Arrays;
import java.util.List;

/** Tells the opening of a page from the loading of what it is made of. */
public final class Navigation {
  private static final List<String> METHODS = Arrays.asList("GET", "HEAD");

  private Navigation() {}

  /**
   * Whether somebody opens a page (Fetch Metadata Request Headers, Sec-Fetch-Mode; else RFC 9110,
   * section 12.5.1): never for a file with an ending, nor for what asks for data.
   *
   * @param path inside the application
   * @param mode the header Sec-Fetch-Mode, null when it is absent
   * @param accept the header Accept, null when it is absent
   */
  public static boolean opens(String method, String path, String mode, String accept) {
    boolean file = path.substring(path.lastIndexOf('/') + 1).indexOf('.') >= 0;
    boolean page = accept != null && accept.contains("text/html");
    return METHODS.contains(method) && !file && page && (mode == null || mode.equals("navigate"));
  }
}

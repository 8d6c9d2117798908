package jollycrate.hosting;

import java.util.List;

/** What applications of the time before Java 9 reach into, and libraries of theirs still do. */
public final class OpenedModules {
  private static final List<String> OPENED =
      List.of(
          "java.base/java.lang",
          "java.base/java.io",
          "java.base/java.util",
          "java.base/java.util.concurrent",
          "java.rmi/sun.rmi.transport");

  private OpenedModules() {}

  /** Options of Java by which that stays open to them. */
  public static List<String> options() {
    return OPENED.stream().map(module -> "--add-opens=" + module + "=ALL-UNNAMED").toList();
  }
}

package jollycrate.host;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The machine a server runs on.
 *
 * @param name how messages call it
 * @param here whether it is the one where the tool runs
 * @param sight how it is looked at
 * @param environment the variables that servers and helpers started there may see
 */
public record Host(
    String name,
    boolean here,
    HostFiles files,
    HostProcesses processes,
    Sight sight,
    Map<String, String> environment) {
  /** Names of variables of a log-in that are passed on. */
  public static final List<String> PASSED_ON =
      List.of("PATH", "HOME", "USER", "LOGNAME", "TZ", "TMPDIR");

  /** What tells them to write UTF-8. */
  public static final Map<String, String> LOCALE = Map.of("LANG", "C.UTF-8", "LC_ALL", "C.UTF-8");

  /** This machine. */
  public static Host local() {
    return new Host(
        "this machine", true, new LocalFiles(), new LocalProcesses(), Sight.NEAR, allowed());
  }

  private static Map<String, String> allowed() {
    Map<String, String> allowed = new LinkedHashMap<>();
    for (String name : PASSED_ON) {
      String value = System.getenv(name);
      if (value != null) {
        allowed.put(name, value);
      }
    }
    allowed.putAll(LOCALE);
    return allowed;
  }
}

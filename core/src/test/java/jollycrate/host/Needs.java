package jollycrate.host;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeTrue;

/**
 * What a test needs of its machine: on a developer's it is passed over without that, where a
 * pipeline runs ({@code CI} is set) it fails, so that nothing is left out in silence.
 */
public final class Needs {
  private Needs() {}

  /** Something that can be installed, or root. */
  public static void here(boolean there, String what) {
    if (System.getenv("CI") == null) {
      assumeTrue(there, what);
    } else {
      assertThat(there).as(what).isTrue();
    }
  }

  /** The rights of root. */
  public static void root() {
    here("root".equals(System.getProperty("user.name")), "not root here");
  }
}

package jollycrate.app;

/**
 * How a program is told a value.
 *
 * @param text an argument that may hold {@link #VALUE}, or the name of a system property, of a
 *     variable, or of a key in its settings file, levels divided by dots
 */
public record Way(Means means, String text) {
  /** Stands for the value in an argument. */
  public static final String VALUE = "{value}";

  /** Over what. */
  public enum Means {
    ARGUMENT("argument"),
    PROPERTY("property"),
    VARIABLE("variable"),
    SETTING("setting");

    private final String key;

    Means(String key) {
      this.key = key;
    }

    /** How {@code jolly.toml} calls it. */
    public String key() {
      return key;
    }

    /** Whether everybody on the machine can read it while the program runs. */
    public boolean isOpen() {
      return this == ARGUMENT || this == PROPERTY;
    }
  }

  /** An argument. */
  public static Way argument(String text) {
    return new Way(Means.ARGUMENT, text);
  }
}

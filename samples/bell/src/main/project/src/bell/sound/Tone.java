package bell.sound;

/** How a ring sounds. */
public enum Tone {
  /** A bike is ready. */
  DING,
  /** A customer waits. */
  DONG;

  /** The tone of that name, in any case; {@link #DING} for no name. */
  public static Tone of(String name) {
    return name == null || name.isBlank() ? DING : valueOf(name.strip().toUpperCase());
  }
}

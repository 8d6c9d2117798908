package jollycrate.pack;

/** A number with what it counts. */
final class Amount {
  private Amount() {}

  static String of(long number, String one, String many) {
    return number + " " + (number == 1 ? one : many);
  }
}

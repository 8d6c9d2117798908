package jollycrate.dist;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Collection;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;

/** Every path of a folder with what is to stay as it is, a line each. */
record Trace(Set<String> lines) {
  static Trace of(Collection<String> lines) {
    return new Trace(new TreeSet<>(lines));
  }

  /** Fails unless both are the same, and tells what differs alone: servers have many files. */
  void isAs(Trace before) {
    assertThat(Stream.concat(beyond("+ ", before), before.beyond("- ", this))).isEmpty();
  }

  private Stream<String> beyond(String sign, Trace other) {
    return lines.stream().filter(line -> !other.lines.contains(line)).map(sign::concat);
  }

  /** Both together. */
  Trace and(Trace other) {
    Set<String> all = new TreeSet<>(lines);
    all.addAll(other.lines);
    return new Trace(all);
  }
}
